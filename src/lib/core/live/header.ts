/** What a column of a recording is, read off its header. */
export interface Column {
	/** Canonical name: `front_left`, `vehicle`, `steering` …; what was written, where nobody knows it. */
	channel: string;
	/** Factor from the column's unit to ours (km/h, °, °/s, g, V, s). */
	factor: number;
}

/** Units after a name, `_kmh`, ` [km/h]`, `(mph)`, and their factor to the unit we keep. */
const UNITS: [RegExp, number][] = [
	[/^(km\/?h|kph|kmph)$/, 1],
	[/^(mph|mi\/h)$/, 1.609344],
	[/^(m\/s|mps|m_s)$/, 3.6],
	[/^(ms|msec|milliseconds)$/, 0.001],
	[/^(us|µs|microseconds)$/, 1e-6],
	[/^(s|sec|seconds?)$/, 1],
	[/^(min|minutes?)$/, 60],
	[/^(deg|°|degrees?|degps|deg\/s|°\/s|dps|g|v|volts?|bar|%)$/, 1],
	[/^(rad)$/, 180 / Math.PI],
	[/^(rad\/s|radps)$/, 180 / Math.PI],
	[/^(m\/s2|m\/s²|mps2)$/, 1 / 9.80665],
	[/^(mv)$/, 0.001],
	[/^(kpa)$/, 0.01]
];

const WHEELS: [RegExp, string][] = [
	[/^(fl|lf)$|front.*left|left.*front/, 'front_left'],
	[/^(fr|rf)$|front.*right|right.*front/, 'front_right'],
	[/^(rl|lr)$|(rear|back).*left|left.*(rear|back)/, 'rear_left'],
	[/^(rr)$|(rear|back).*right|right.*(rear|back)/, 'rear_right']
];
const OTHERS: [RegExp, string][] = [
	[/steer/, 'steering'],
	[/yaw/, 'yaw'],
	[/lat.*acc|^lateral/, 'lateral'],
	[/brake.*(switch|pedal|light|lamp)/, 'brake_switch'],
	[/brake.*press/, 'brake_pressure'],
	[/supply|battery|voltage/, 'supply'],
	[/vehicle|^speed$|^vss$|ground_speed/, 'vehicle']
];

/** Splits `Front Left [km/h]` or `front_left_kmh` into its words and its unit. */
function splitUnit(header: string): { words: string; unit: string | null } {
	const text = header.trim().toLowerCase();
	const bracketed = /^(.*?)\s*[[(]\s*([^\])]*)\s*[\])]\s*$/.exec(text);
	if (bracketed) return { words: bracketed[1] ?? '', unit: (bracketed[2] ?? '').trim() };
	const trailing = /^(.*)[_ ]([a-zµ°/²0-9]+)$/.exec(text);
	const unit = trailing?.[2] ?? '';
	if (trailing && UNITS.some(([pattern]) => pattern.test(unit))) return { words: trailing[1] ?? '', unit };
	return { words: text, unit: null };
}

/** @returns null for a unit that nobody knows */
export function readHeader(header: string): Column | null {
	const { words, unit } = splitUnit(header);
	const factor = unit === null || unit === '' ? 1 : UNITS.find(([pattern]) => pattern.test(unit))?.[1];
	if (factor === undefined) return null;
	const name = words
		.trim()
		.replace(/[^a-z0-9]+/g, '_')
		.replace(/^_+|_+$/g, '');
	const axle = /axle_?(\d).*?(left|right)/.exec(name);
	if (axle) return { channel: `axle${axle[1]}_${axle[2]}`, factor };
	const bare = name.replace(/_?(wheel|speed|sensor|wss|ws)_?/g, '_').replace(/^_+|_+$/g, '');
	const wheel = WHEELS.find(([pattern]) => pattern.test(bare))?.[1];
	const other = OTHERS.find(([pattern]) => pattern.test(name))?.[1];
	return { channel: wheel ?? other ?? name, factor };
}
