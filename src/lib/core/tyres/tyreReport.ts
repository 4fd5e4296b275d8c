import { compareTyres, whatItBelieves, type Drive, type TyreComparison } from './compareTyres';
import { revolutionsPerKm, rollingCircumferenceMm } from './rollingCircumference';
import { parseTyreSize, type TyreSize } from './tyreSize';

/** A tyre as it stands on a wheel of a vehicle. */
export interface FittedTyre {
	position: string;
	axle: number;
	side: 'left' | 'right';
	/** As read from the sidewall. */
	size: string;
	treadMm: number | null;
	/** Pressure over the one it should have, 1 = right; null where not measured. */
	pressureShare: number | null;
}

export interface TyreReport {
	wheels: (FittedTyre & { parsed: TyreSize; circumferenceMm: number; revsPerKm: number })[];
	comparison: TyreComparison;
	/** What the controller will make of it. */
	believes: string;
	/** Things to look at before it is driven; cautions, never advice. */
	cautions: string[];
}

/** Nearer than this nothing is said of the difference. */
const ALIKE_PERCENT = 0.05;

/** @returns a report, or by position what was expected of a size that cannot be read */
export function tyreReport(
	tyres: readonly FittedTyre[],
	{
		loadFactor,
		thresholdKmh,
		drive
	}: { loadFactor: number; thresholdKmh: number | null; drive: Drive | null }
): { ok: true; value: TyreReport } | { ok: false; error: Record<string, string> } {
	const errors: Record<string, string> = {};
	const wheels = tyres.flatMap((tyre) => {
		const parsed = parseTyreSize(tyre.size);
		if (!parsed.ok) {
			errors[tyre.position] = parsed.error;
			return [];
		}
		const circumferenceMm = rollingCircumferenceMm(parsed.value.diameterMm, loadFactor, {
			treadMm: tyre.treadMm ?? undefined,
			pressureShare: tyre.pressureShare ?? undefined
		});
		return [{ ...tyre, parsed: parsed.value, circumferenceMm, revsPerKm: revolutionsPerKm(circumferenceMm) }];
	});
	if (Object.keys(errors).length > 0 || wheels.length === 0) return { ok: false, error: errors };
	const comparison = compareTyres(wheels, thresholdKmh);
	const believes =
		comparison.spreadPercent < ALIKE_PERCENT
			? 'All wheels roll alike.'
			: whatItBelieves(comparison.frontToRear, drive);
	return {
		ok: true,
		value: { wheels, comparison, believes, cautions: cautionsOf(wheels.map(({ parsed }) => parsed)) }
	};
}

/** What the sidewalls say that has to be held against the vehicle's papers. */
export function cautionsOf(sizes: readonly TyreSize[]): string[] {
	const cautions: string[] = [];
	if (sizes.some(({ use }) => use === 'temporary'))
		cautions.push('A temporary spare is fitted: it does not stay on, and not faster than its sidewall says.');
	const different = (of: (size: TyreSize) => string | null) =>
		new Set(sizes.map(of).filter((value) => value !== null)).size > 1;
	if (different(({ loadIndex }) => loadIndex))
		cautions.push('Load ratings differ: hold each against the vehicle’s papers before it is driven.');
	if (different(({ speedRating }) => speedRating))
		cautions.push('Speed ratings differ: hold each against the vehicle’s papers before it is driven.');
	if (new Set(sizes.map(({ rimInch }) => rimInch)).size > 1)
		cautions.push('Rims of different diameter: is each size read from the right sidewall?');
	if (sizes.some(({ aspectAssumed }) => aspectAssumed))
		cautions.push('A size without a height is taken with 82 %.');
	return cautions;
}

export interface WhatIf {
	name: string;
	tyres: FittedTyre[];
}

/** What could be tried with the tyres at hand: swapped about, or one axle or one odd wheel made like the rest. */
export function whatIfs(tyres: readonly FittedTyre[]): WhatIf[] {
	const axles = [...new Set(tyres.map(({ axle }) => axle))].sort((a, b) => a - b);
	const [first, last] = [axles[0], axles.at(-1)];
	const tyreAt = (axle: number | undefined, side: string) =>
		tyres.find((tyre) => tyre.axle === axle && tyre.side === side);
	const like = (tyre: FittedTyre, other: FittedTyre | undefined): FittedTyre =>
		other ? { ...tyre, size: other.size, treadMm: other.treadMm, pressureShare: other.pressureShare } : tyre;
	const found: WhatIf[] = [];
	const add = (name: string, change: (tyre: FittedTyre) => FittedTyre) => {
		const changed = tyres.map(change);
		const differs = changed.some(
			(tyre, i) =>
				tyre.size !== tyres[i]?.size ||
				tyre.treadMm !== tyres[i]?.treadMm ||
				tyre.pressureShare !== tyres[i]?.pressureShare
		);
		if (differs) found.push({ name, tyres: changed });
	};
	if (first !== undefined && last !== undefined && first !== last) {
		const opposite = (axle: number) => (axle === first ? last : axle === last ? first : axle);
		add('front and rear axle swapped', (tyre) => like(tyre, tyreAt(opposite(tyre.axle), tyre.side)));
		add('left and right swapped', (tyre) =>
			like(tyre, tyreAt(tyre.axle, tyre.side === 'left' ? 'right' : 'left'))
		);
		add('all like the front axle', (tyre) => like(tyre, tyreAt(first, tyre.side)));
		add('all like the rear axle', (tyre) => like(tyre, tyreAt(last, tyre.side)));
	}
	const sizes = tyres.map(({ size }) => size);
	const usual = sizes.find((size) => sizes.filter((one) => one === size).length > sizes.length / 2);
	const model = tyres.find(({ size }) => size === usual);
	if (usual !== undefined) add(`all ${usual}`, (tyre) => (tyre.size === usual ? tyre : like(tyre, model)));
	add('all of new tread, at the right pressure', (tyre) => ({ ...tyre, treadMm: null, pressureShare: null }));
	return found;
}
