import { readHeader } from '../live/header';

/** Factors to volts. */
const VOLTS: Record<string, number> = {
	v: 1,
	volt: 1,
	volts: 1,
	mv: 0.001,
	uv: 1e-6,
	µv: 1e-6,
	μv: 1e-6,
	kv: 1000
};
const BRACKETED = /^(.*?)[\s_]*[[(]\s*([^\])]*?)\s*[\])]\s*$/;
/** A unit without brackets is one only where it cannot be a name: `channel_a` is no current. */
const TRAILING = /^(.*?)[\s_]+([a-zµμ][a-zµμ0-9/²]+|v)$/;
const NOT_NAMES = [
	'ms',
	'us',
	'ns',
	'kmh',
	'kph',
	'mph',
	'mps',
	'degps',
	'deg',
	'rpm',
	'hz',
	'kpa',
	'bar',
	'psi',
	'ma'
];

export type VoltageColumn = { name: string; factor: number } | { notVolts: string };

/**
 * What a column of a capture is by its header: `front_left_v`, `Front left [mV]`, `Channel A (V)`, `ch1` (volts, where none
 * is named). A column in another unit is no voltage and says in which.
 *
 * @param unitBelow unit in a row of its own under the header; empty where there is none
 */
export function voltageColumn(header: string, unitBelow: string): VoltageColumn {
	const text = header.trim().toLowerCase();
	const bracketed = BRACKETED.exec(text);
	const trailing = bracketed ? null : TRAILING.exec(text);
	const said = trailing?.[2] ?? '';
	const isUnit = said in VOLTS || NOT_NAMES.includes(said);
	const below = unitBelow
		.trim()
		.toLowerCase()
		.replace(/^[[(]|[\])]$/g, '');
	const unit = bracketed?.[2] || (isUnit ? said : '') || below;
	const words = (bracketed?.[1] ?? (isUnit ? trailing?.[1] : text) ?? text).replace(
		/[_ ]*(voltage|signal|sensor)(?=$|[_ ])/g,
		''
	);
	const factor = unit === '' ? 1 : VOLTS[unit];
	if (factor === undefined) return { notVolts: unit };
	// The unit is given, so that nothing of the name is taken for one.
	return { name: readHeader(`${words} [v]`)?.channel || text.replace(/[^a-z0-9]+/g, '_'), factor };
}
