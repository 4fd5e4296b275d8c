import { medianOf } from './medianOf';
import type { Recording } from './recording';
import type { WheelTable } from './wheelTable';

/** Offsets are judged from here: below, pulses are too few. */
const FROM_KMH = 20;
/** Speed changing faster than this, slip is in the readings. */
const STEADY_KMH_PER_S = 2.5;
/** A left–right difference of an axle further from its usual one than this is a bend. */
const STRAIGHT_SHARE = 0.012;
const STRAIGHT_STEERING_DEG = 12;
const STRAIGHT_YAW_DEGPS = 1.5;
/** Wear and pressure make up to this much. */
const OFFSET_FROM = 0.018;
/** Those that belong together lie within this. */
const TOGETHER = 0.011;
const LEAST_S = 4;

export interface RatioOffset {
	/** A wheel, `front`/`rear`, or `left`/`right`. */
	channel: string;
	/** Its reading over that of the others, above 1 where it reads faster. */
	ratio: number;
	from: number;
	to: number;
}

/**
 * A constant ratio between wheels: another rolling circumference or another ring. Judged while the vehicle rolls straight
 * and evenly; straight is told from the steering where it is recorded, from the wheels' own usual difference otherwise.
 *
 * @param usable wheels whose readings can be believed
 */
export function ratioOffset(
	table: WheelTable,
	recording: Recording,
	usable: readonly boolean[]
): RatioOffset | null {
	const { names, timeS, kmh, reference } = table;
	const wheels = names.map((_, k) => k).filter((k) => usable[k]);
	if (wheels.length < 3) return null;
	const steering = recording.channels.get('steering');
	const axles = axlesOf(names, wheels);
	const stride = Math.max(1, Math.floor(timeS.length / MOST_SAMPLES));
	const steady = steadySamples(table, wheels, stride);
	const leftRight = (axle: [number, number], i: number) =>
		((kmh[axle[0]]?.[i] ?? NaN) - (kmh[axle[1]]?.[i] ?? NaN)) / (reference[i] ?? NaN);
	const usual = axles.map((axle) => medianOf(steady.map((i) => leftRight(axle, i))));
	const middle = steering ? medianOf(steady.map((i) => steering[i] ?? 0).filter((v) => !Number.isNaN(v))) : 0;
	const yaw = recording.channels.get('yaw');
	const yawMiddle = yaw ? medianOf(steady.map((i) => yaw[i] ?? NaN).filter((v) => !Number.isNaN(v))) : 0;
	const straight = steady.filter((i) => {
		const [angle, rate] = [steering?.[i] ?? NaN, yaw?.[i] ?? NaN];
		if (!Number.isNaN(rate) && Math.abs(rate - yawMiddle) > STRAIGHT_YAW_DEGPS) return false;
		if (!Number.isNaN(angle)) return Math.abs(angle - middle) < STRAIGHT_STEERING_DEG;
		return axles.every((axle, a) => Math.abs(leftRight(axle, i) - (usual[a] ?? 0)) < STRAIGHT_SHARE);
	});
	const first = straight[0];
	const last = straight.at(-1);
	if (first === undefined || last === undefined) return null;
	if (straight.length * stride * table.intervalS < LEAST_S) return null;
	// A share of the mean of all, so that a pair that reads fast does not hide in the median.
	const shares = new Map(
		wheels.map((k) => [
			k,
			medianOf(
				straight.map((i) => {
					const mean = wheels.reduce((sum, j) => sum + (kmh[j]?.[i] ?? NaN), 0) / wheels.length;
					return (kmh[k]?.[i] ?? NaN) / mean;
				})
			)
		])
	);
	const odd = oddGroup(names, wheels, shares);
	const sure = steering ?? yaw;
	const side = odd?.channel === 'left' || odd?.channel === 'right';
	if (side && !sure && !isUsual(straight, steady.length, stride, table)) return null;
	return odd && { ...odd, from: first, to: last };
}

/** A side offset without steering or yaw could be one long bend: it must hold most of the time, and again after others. */
const USUAL_SHARE = 0.5;
const USUAL_STRETCHES = 2;
const STRETCH_S = 3;

function isUsual(
	straight: readonly number[],
	steady: number,
	stride: number,
	{ timeS }: WheelTable
): boolean {
	if (straight.length < USUAL_SHARE * steady) return false;
	let stretches = 0;
	let from = 0;
	for (let n = 1; n <= straight.length; n++) {
		const [now, before] = [straight[n] ?? Infinity, straight[n - 1] ?? 0];
		if (now - before <= 2 * stride) continue;
		if ((timeS[before] ?? 0) - (timeS[straight[from] ?? 0] ?? 0) >= STRETCH_S) stretches += 1;
		from = n;
	}
	return stretches >= USUAL_STRETCHES;
}

/** More moments than this tell no more. */
const MOST_SAMPLES = 12_000;

function steadySamples(
	{ timeS, kmh, reference }: WheelTable,
	wheels: readonly number[],
	stride: number
): number[] {
	const steady: number[] = [];
	for (let i = stride; i + stride < timeS.length; i += stride) {
		const now = reference[i] ?? NaN;
		if (!(now > FROM_KMH)) continue;
		const slope =
			((reference[i + stride] ?? 0) - (reference[i - stride] ?? 0)) /
			((timeS[i + stride] ?? 0) - (timeS[i - stride] ?? 0));
		if (!(Math.abs(slope) < STEADY_KMH_PER_S)) continue;
		if (wheels.every((k) => Math.abs((kmh[k]?.[i] ?? NaN) / now - 1) < 0.3)) steady.push(i);
	}
	return steady;
}

function axlesOf(names: readonly string[], wheels: readonly number[]): [number, number][] {
	return wheels.flatMap((k): [number, number][] => {
		const name = names[k] ?? '';
		if (!name.endsWith('_left')) return [];
		const mate = names.indexOf(name.replace('_left', '_right'));
		return wheels.includes(mate) ? [[k, mate]] : [];
	});
}

/** Which wheel, axle or side stands apart from the rest that agree; null where none does. */
function oddGroup(
	names: readonly string[],
	wheels: readonly number[],
	shares: ReadonlyMap<number, number>
): { channel: string; ratio: number } | null {
	const groups = (of: (name: string) => string) => [...new Set(wheels.map((k) => of(names[k] ?? '')))];
	const axleOf = (name: string) => name.split('_')[0] ?? '';
	const sideOf = (name: string) => name.split('_')[1] ?? '';
	const candidates: { channel: string; inside: number[] }[] = [
		...wheels.map((k) => ({ channel: names[k] ?? '', inside: [k] })),
		...groups(axleOf).map((axle) => ({
			channel: axle,
			inside: wheels.filter((k) => axleOf(names[k] ?? '') === axle)
		})),
		...groups(sideOf).map((side) => ({
			channel: side,
			inside: wheels.filter((k) => sideOf(names[k] ?? '') === side)
		}))
	];
	let best: { channel: string; ratio: number } | null = null;
	for (const { channel, inside } of candidates) {
		const outside = wheels.filter((k) => !inside.includes(k));
		if (outside.length < 2 || (inside.length === 1 && outside.length < 2)) continue;
		const of = (list: readonly number[]) => list.map((k) => shares.get(k) ?? NaN);
		const mean = (list: number[]) => list.reduce((a, b) => a + b, 0) / list.length;
		const apart = (list: number[]) => Math.max(...list) - Math.min(...list);
		const ratio = mean(of(inside)) / mean(of(outside));
		if (apart(of(inside)) > TOGETHER || apart(of(outside)) > TOGETHER) continue;
		if (Math.abs(ratio - 1) < OFFSET_FROM) continue;
		// Of two axles or sides the faster is named: which of them is wrong the readings cannot tell.
		if (inside.length > 1 && ratio < 1) continue;
		if (!best || Math.abs(ratio - 1) > Math.abs(best.ratio - 1)) best = { channel, ratio };
	}
	return best;
}
