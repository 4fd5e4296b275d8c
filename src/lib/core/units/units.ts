/**
 * Units as a person reads and types them. Everything is measured, computed and kept in the first unit of each kind; the
 * others are put on at the last moment, where it is shown, and taken off where it is typed.
 */
export const UNITS = {
	distance: ['km', 'mi'],
	speed: ['km/h', 'mph'],
	pressure: ['kPa', 'psi', 'bar'],
	torque: ['N·m', 'lb·ft'],
	temperature: ['°C', '°F'],
	length: ['mm', 'in']
} as const;

export type Kind = keyof typeof UNITS;
export type Units = { [K in Kind]: (typeof UNITS)[K][number] };

export const SI: Units = {
	distance: 'km',
	speed: 'km/h',
	pressure: 'kPa',
	torque: 'N·m',
	temperature: '°C',
	length: 'mm'
};

/** What somebody chooses; the speed goes with the distance. */
export type UnitChoice = Omit<Units, 'speed'>;

export const unitsOf = (choice: UnitChoice): Units => ({
	...choice,
	speed: choice.distance === 'mi' ? 'mph' : 'km/h'
});

export const KINDS = Object.keys(UNITS) as Kind[];

/** shown = kept × factor + offset. The mile, the inch, the pound and its force are exact by definition (ISO 80000). */
const SCALES: Record<string, { factor: number; offset?: number }> = {
	mi: { factor: 1 / 1.609344 },
	mph: { factor: 1 / 1.609344 },
	// 1 lbf = 0.45359237 kg × 9.80665 m/s², 1 in² = 0.0254² m².
	psi: { factor: (1000 * 0.0254 ** 2) / (0.45359237 * 9.80665) },
	bar: { factor: 0.01 },
	'lb·ft': { factor: 1 / (0.45359237 * 9.80665 * 0.3048) },
	'°F': { factor: 1.8, offset: 32 },
	in: { factor: 1 / 25.4 }
};

/** A kept value as it is shown in that unit. */
export function toUnit(value: number, unit: string): number {
	const scale = SCALES[unit];
	return scale ? value * scale.factor + (scale.offset ?? 0) : value;
}

/** A typed value in that unit as it is kept. */
export function fromUnit(value: number, unit: string): number {
	const scale = SCALES[unit];
	return scale ? (value - (scale.offset ?? 0)) / scale.factor : value;
}

/** Digits behind the point more (or fewer) that make a step in this unit about as fine as in the kept one. */
export function moreDigits(unit: string): number {
	return Math.max(0, Math.round(-Math.log10(SCALES[unit]?.factor ?? 1)));
}

const plain = (value: number, digits: number): string =>
	value.toLocaleString('en-GB', { minimumFractionDigits: digits, maximumFractionDigits: digits });

/** A kept value with its unit, as that person reads it; `digits` are those of the kept value. */
export function quantity(value: number, kind: Kind, units: Units, digits = 0): string {
	const unit = units[kind];
	return `${plain(toUnit(value, unit), digits + moreDigits(unit))} ${unit}`;
}

const NUMBER = String.raw`[-−]?(?:\d{1,3}(?:,\d{3})+|\d+)(?:\.\d+)?`;
const JOINED = String.raw`(?: to | and | or |–)`;
/** A torque stands in sentences in both units already: both wrenches hang on the wall. */
const KIND_OF: Record<string, Kind> = Object.fromEntries(
	KINDS.filter((kind) => kind !== 'torque').map((kind) => [SI[kind], kind])
);
/** What a unit that something is kept in is a unit of; undefined for those that everybody reads alike. */
export const kindOf = (kept: string): Kind | undefined =>
	Object.hasOwn(KIND_OF, kept) ? KIND_OF[kept] : undefined;
/**
 * What stands in quotation marks, or one number, or several that share a unit, then the unit they are kept in. A longer unit
 * is tried before a shorter one.
 */
const QUANTITY = new RegExp(
	`“[^”]*”|(?<![\\w.,-])(${NUMBER}(?:${JOINED}${NUMBER})*)([ \\u00a0])(${Object.keys(KIND_OF)
		.sort((a, b) => b.length - a.length)
		.join('|')})(?![\\w/])`,
	'g'
);

/** A number as it stands in a sentence, in that unit and about as fine. */
function numberIn(number: string, unit: string): string {
	const digits = (number.split('.')[1] ?? '').length;
	const value = Number(number.replaceAll(',', '').replace('−', '-'));
	return plain(toUnit(value, unit), digits + moreDigits(unit));
}

/**
 * A sentence of ours with its quantities in a person's units. Sentences are made and kept with the kept units, each number
 * followed by its own or sharing one with those before it (“20 to 40 km/h”). What somebody is quoted with stays as it is.
 */
export function inUnits(sentence: string, units: Units): string {
	return sentence.replace(QUANTITY, (whole, numbers?: string, space?: string, kept?: string) => {
		const unit = units[KIND_OF[kept ?? ''] ?? 'torque'];
		if (numbers === undefined || unit === kept) return whole;
		return `${numbers.replace(new RegExp(NUMBER, 'g'), (number) => numberIn(number, unit))}${space ?? ''}${unit}`;
	});
}
