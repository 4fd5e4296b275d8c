import { isSpeed } from '../live/recording';
import type { Comparison, Condition, Operand } from '../conditions/condition';

/** What a drive has to do at one moment so that a condition can hold on a sound vehicle. */
export interface DriveNeed {
	/** Of the vehicle; wheels of a sound vehicle turn as it does. */
	speedKmh: Band;
	/** At the steering wheel, left positive; null = straight will do. */
	steeringDeg: Band | null;
	/** Null = no matter. */
	brakes: boolean | null;
	/** Without a break. */
	holdS: number;
}
export type Band = readonly [low: number, high: number];

const ANY_SPEED: Band = [0, Infinity];
/** How far beyond a limit is aimed at, so that a dial that is a little off does not spoil it. */
const MARGIN_KMH = 3;
const MARGIN_DEG = 10;
const MOST_ALTERNATIVES = 64;

export const intersect = (a: Band, b: Band): Band | null => {
	const band: Band = [Math.max(a[0], b[0]), Math.min(a[1], b[1])];
	return band[0] <= band[1] ? band : null;
};

/** Both at once; null where they exclude each other. */
export function together(a: DriveNeed, b: DriveNeed): DriveNeed | null {
	const speedKmh = intersect(a.speedKmh, b.speedKmh);
	const steeringDeg =
		a.steeringDeg && b.steeringDeg
			? intersect(a.steeringDeg, b.steeringDeg)
			: (a.steeringDeg ?? b.steeringDeg);
	if (!speedKmh || (a.steeringDeg && b.steeringDeg && !steeringDeg)) return null;
	if (a.brakes !== null && b.brakes !== null && a.brakes !== b.brakes) return null;
	return {
		speedKmh,
		steeringDeg,
		brakes: a.brakes ?? b.brakes,
		holdS: Math.max(a.holdS, b.holdS)
	};
}

const FREE: DriveNeed = { speedKmh: ANY_SPEED, steeringDeg: null, brakes: null, holdS: 0 };

/**
 * The ways in which a drive can make a condition hold: any one will do. What a sound vehicle does by itself (wheels that
 * agree, supply in its window) is taken as given. Empty where no drive can bring it about.
 */
export function driveNeeds(condition: Condition): DriveNeed[] {
	return ways(condition, true);
}

/** @param wanted whether it shall hold, or shall not */
function ways(condition: Condition, wanted: boolean): DriveNeed[] {
	switch (condition.kind) {
		case 'not':
			return ways(condition.of, !wanted);
		case 'held':
			// Not held for a time is given by any break.
			return wanted
				? ways(condition.of, true).map((need) => ({ ...need, holdS: Math.max(need.holdS, condition.forS) }))
				: [FREE];
		case 'all':
		case 'any':
			return (condition.kind === 'all') === wanted
				? everyOne(condition.of.map((part) => ways(part, wanted)))
				: condition.of.flatMap((part) => ways(part, wanted)).slice(0, MOST_ALTERNATIVES);
		case 'compare':
			return compared(condition.left, wanted ? condition.is : OPPOSITE[condition.is], condition.right);
	}
}

const OPPOSITE: Record<Comparison, Comparison> = {
	above: 'at-most',
	'at-least': 'below',
	below: 'at-least',
	'at-most': 'above',
	equal: 'equal'
};

function everyOne(parts: DriveNeed[][]): DriveNeed[] {
	return parts.reduce<DriveNeed[]>(
		(soFar, part) =>
			soFar
				.flatMap((a) => part.map((b) => together(a, b)))
				.filter((need) => need !== null)
				.slice(0, MOST_ALTERNATIVES),
		[FREE]
	);
}

function compared(left: Operand, is: Comparison, right: Operand): DriveNeed[] {
	if (left.kind === 'value' && right.kind !== 'value') return compared(right, MIRRORED[is], left);
	if (left.kind === 'signal' && right.kind === 'value') return signalAgainst(left.signal, is, right.value);
	// Two signals of one drive against each other: on a sound vehicle they agree, unless it turns or slips.
	return agrees(left, is, right) ? [FREE] : [];
}

const MIRRORED: Record<Comparison, Comparison> = {
	above: 'below',
	'at-least': 'at-most',
	below: 'above',
	'at-most': 'at-least',
	equal: 'equal'
};

function signalAgainst(signal: string, is: Comparison, value: number): DriveNeed[] {
	if (isSpeed(signal)) {
		const speedKmh = bandOf(is, value, MARGIN_KMH, [0, Infinity]);
		return speedKmh ? [{ ...FREE, speedKmh }] : [];
	}
	if (signal === 'steering') {
		const steeringDeg = bandOf(is, value, MARGIN_DEG, [-720, 720]);
		return steeringDeg ? [{ ...FREE, steeringDeg }] : [];
	}
	if (signal === 'brake_switch') return [{ ...FREE, brakes: holds(1, is, value) }];
	if (signal === 'yaw' || signal === 'lateral') {
		// A turn to whichever side it asks for; slow, so that it can be driven anywhere.
		if (holds(0, is, value)) return [FREE];
		const toLeft = is === 'above' || is === 'at-least';
		return [{ ...FREE, speedKmh: [15, 30], steeringDeg: toLeft ? [90, 360] : [-360, -90] }];
	}
	// Supply, key, pressure and the like are as they should be, or the drive cannot change them.
	return [FREE];
}

/** The part of a range in which a comparison holds, with a margin to its limit. */
function bandOf(is: Comparison, value: number, margin: number, [low, high]: Band): Band | null {
	switch (is) {
		case 'above':
		case 'at-least':
			return intersect([value + (value > low ? margin : 0), high], [low, high]);
		case 'below':
		case 'at-most':
			// Close to nothing there is no room for a margin.
			return intersect([low, value - Math.min(margin, Math.max(0, (value - low) / 2))], [low, high]);
		case 'equal':
			return intersect([value, value], [low, high]);
	}
}

function holds(a: number, is: Comparison, b: number): boolean {
	switch (is) {
		case 'above':
			return a > b;
		case 'at-least':
			return a >= b;
		case 'below':
			return a < b;
		case 'at-most':
			return a <= b;
		case 'equal':
			return a === b;
	}
}

/** Whether a comparison of two speeds holds where all of them are the same and above nothing. */
function agrees(left: Operand, is: Comparison, right: Operand): boolean {
	const SPEED = 50;
	const of = (operand: Operand): number | null => {
		switch (operand.kind) {
			case 'value':
				return operand.value;
			case 'signal':
				return isSpeed(operand.signal) ? SPEED : null;
			case 'share':
				return isSpeed(operand.of) ? (SPEED * operand.percent) / 100 : null;
			case 'difference':
				return 0;
		}
	};
	const [a, b] = [of(left), of(right)];
	return a === null || b === null || holds(a, is, b);
}
