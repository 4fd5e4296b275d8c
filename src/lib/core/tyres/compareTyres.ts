export type Drive = 'front' | 'rear' | 'all';

/** One wheel with the circumference it rolls on. */
export interface RollingWheel {
	position: string;
	axle: number;
	side: 'left' | 'right';
	circumferenceMm: number;
}

export interface TyreComparison {
	/** Mean circumference of the first axle over that of the last; 1 where there is one axle. */
	frontToRear: number;
	/** Mean of the left side over that of the right. */
	leftToRight: number;
	/** Largest over smallest, less one, in per cent. */
	spreadPercent: number;
	/** True speed at which the fastest and the slowest reading differ by the threshold; null where they never do. */
	crossesAtKmh: number | null;
}

const mean = (list: readonly number[]) => list.reduce((sum, one) => sum + one, 0) / list.length;
const ratio = (over: readonly RollingWheel[], under: readonly RollingWheel[]) =>
	over.length > 0 && under.length > 0
		? mean(over.map((wheel) => wheel.circumferenceMm)) / mean(under.map((wheel) => wheel.circumferenceMm))
		: 1;

/**
 * How the circumferences of a vehicle's wheels differ, and from which speed a code's threshold sees it: the difference is a
 * share of the speed, so it is crossed at threshold / spread.
 *
 * @param wheels at least one
 * @param thresholdKmh difference of two readings that the code allows; null where none is known
 */
export function compareTyres(wheels: readonly RollingWheel[], thresholdKmh: number | null): TyreComparison {
	const all = wheels.map((wheel) => wheel.circumferenceMm);
	const spread = Math.max(...all) / Math.min(...all) - 1;
	const axles = wheels.map((wheel) => wheel.axle);
	const ofAxle = (axle: number) => wheels.filter((wheel) => wheel.axle === axle);
	const ofSide = (side: string) => wheels.filter((wheel) => wheel.side === side);
	return {
		frontToRear: ratio(ofAxle(Math.min(...axles)), ofAxle(Math.max(...axles))),
		leftToRight: ratio(ofSide('left'), ofSide('right')),
		spreadPercent: spread * 100,
		crossesAtKmh: thresholdKmh !== null && spread > 1e-9 ? thresholdKmh / spread : null
	};
}

/** Below this axles are alike: wear and pressure make as much. */
const ALIKE = 0.01;

/** What a controller will make of axles that roll differently, in one sentence. The smaller tyre turns, and reads, faster. */
export function whatItBelieves(frontToRear: number, drive: Drive | null): string {
	if (Math.abs(frontToRear - 1) < ALIKE) return 'Front and rear roll alike.';
	const faster = frontToRear < 1 ? 'front' : 'rear';
	if (drive === null) return `The ${faster} axle reads faster.`;
	if (drive === 'all') {
		return `The ${faster} axle reads faster all the time: the controller takes it for slip between the axles, and their coupling works against it.`;
	}
	return faster === drive
		? `The driven ${faster} axle reads faster: the controller believes that it slips, and cuts power.`
		: `The ${faster} axle is not driven and yet reads faster, which cannot be: a plausibility fault at once.`;
}
