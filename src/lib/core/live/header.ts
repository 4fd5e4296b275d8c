/** What a column of a recording is, read off its header. */
export interface Column {
	/** Canonical name: `front_left`, `vehicle`, `steering` …; what was written, where nobody knows it. */
	channel: string;
	/** Factor from the column's unit to ours (km/h, °, °/s, g, V, kPa, s). */
	factor: number;
	/** As written; null where the header names none. */
	unit: string | null;
	/** Whether the name is one of those that are known here. */
	known: boolean;
}

/** Units after a name, `_kmh`, ` [km/h]`, `(mph)`, and their factor to the unit we keep. */
const UNITS: [RegExp, number][] = [
	[/^(km\/?h|kph|kmph|km_h)$/, 1],
	[/^(mph|mi\/h)$/, 1.609344],
	[/^(m\/s|mps|m_s)$/, 3.6],
	[/^(ms|msec|milliseconds)$/, 0.001],
	[/^(us|µs|μs|microseconds)$/, 1e-6],
	[/^(ns|nanoseconds)$/, 1e-9],
	[/^(s|sec|secs|seconds?)$/, 1],
	[/^(min|minutes?)$/, 60],
	[/^(deg|°|degrees?|degps|deg\/s|°\/s|dps|g|v|volts?|kpa|%|-|1|bool|on\/off)$/, 1],
	[/^(rad)$/, 180 / Math.PI],
	[/^(rad\/s|radps)$/, 180 / Math.PI],
	[/^(m\/s2|m\/s²|m\/s\^2|mps2)$/, 1 / 9.80665],
	[/^(mv)$/, 0.001],
	[/^(bar)$/, 100],
	[/^(psi)$/, 6.89476],
	[/^(rpm|1\/min|nm|n·m|a|ma|km|°c|c|degc|hz)$/, 1]
];

const WHEELS: [RegExp, string][] = [
	[/^(fl|lf)(_|$)|front.*left|left.*front|(^|_)(fl|lf)$/, 'front_left'],
	[/^(fr|rf)(_|$)|front.*right|right.*front|(^|_)(fr|rf)$/, 'front_right'],
	[/^(rl|lr)(_|$)|(rear|back).*left|left.*(rear|back)|(^|_)(rl|lr)$/, 'rear_left'],
	[/^(rr)(_|$)|(rear|back).*right|right.*(rear|back)|(^|_)rr$/, 'rear_right']
];
const SINGLE = /^(front|rear|back)_wheel(?:_speed)?$|^wheel(?:_speed)?_(front|rear|back)$/;
const OTHERS: [RegExp, string][] = [
	[/steer/, 'steering'],
	[/yaw/, 'yaw'],
	[/lat.*acc|^lateral/, 'lateral'],
	[/brake.*(switch|pedal|light|lamp)/, 'brake_switch'],
	[/brake.*press/, 'brake_pressure'],
	[/supply|battery|voltage/, 'supply'],
	[/vehicle|^speed$|^vss$|ground_speed/, 'vehicle']
];
const TIME = /time|^t$|^t[_[( ]|clock|stamp|^date/i;

/** Whether a header names the time. */
export const isTimeHeader = (header: string): boolean => TIME.test(header.trim());

/** Factor of a unit standing alone; null where nobody knows it. */
export const unitFactor = (unit: string): number | null =>
	UNITS.find(([pattern]) => pattern.test(unit.trim().toLowerCase()))?.[1] ?? null;

/** Splits `Front Left [km/h]` or `front_left_kmh` into its words and its unit. */
function splitUnit(header: string): { words: string; unit: string | null } {
	const text = header.trim().toLowerCase();
	const bracketed = /^(.*?)\s*[[(]\s*([^\])]*)\s*[\])]\s*$/.exec(text);
	if (bracketed) return { words: bracketed[1] ?? '', unit: (bracketed[2] ?? '').trim() };
	const trailing = /^(.*)[_ ]([a-zµμ°/²0-9]+)$/.exec(text);
	const unit = trailing?.[2] ?? '';
	if (trailing && unitFactor(unit) !== null && !/^\d+$/.test(unit)) return { words: trailing[1] ?? '', unit };
	return { words: text, unit: null };
}

/** @returns null for a unit that nobody knows */
export function readHeader(header: string): Column | null {
	const { words, unit } = splitUnit(header);
	const factor = unit === null || unit === '' ? 1 : unitFactor(unit);
	if (factor === null) return null;
	const named = nameChannel(words);
	return { ...named, factor, unit: unit === '' ? null : unit };
}

function nameChannel(words: string): Pick<Column, 'channel' | 'known'> {
	const name = words
		.trim()
		.replace(/[^a-z0-9]+/g, '_')
		.replace(/^_+|_+$/g, '');
	const axle = /axle_?(\d).*?(left|right)/.exec(name);
	if (axle) return { channel: `axle${axle[1]}_${axle[2]}`, known: true };
	const bare = name.replace(/_?(wheel|speed|sensor|wss|ws)_?/g, '_').replace(/^_+|_+$/g, '');
	const wheel = WHEELS.find(([pattern]) => pattern.test(bare))?.[1];
	// A wheel's pressure or temperature is not its speed.
	const notSpeed = /press|temp|volt|current|torque|slip|count/.test(name);
	if (wheel && !notSpeed) return { channel: wheel, known: true };
	// One wheel at each end: a motorcycle's.
	const single = SINGLE.exec(name)
		?.slice(1)
		.find((end) => end !== undefined);
	if (single) return { channel: `${single === 'back' ? 'rear' : single}_wheel`, known: true };
	const other = OTHERS.find(([pattern]) => pattern.test(name))?.[1];
	return { channel: other ?? name, known: other !== undefined };
}
