import type { Recording } from './recording';
import type { WheelTable } from './wheelTable';
import { medianOf } from './medianOf';

/** Something about another signal than a wheel's, or about the recording itself. */
export interface LiveNote {
	channel: string;
	/** In the signal's unit, or a ratio where it is about units. */
	value: number;
	text: string;
	/** A unit in which the wheels' columns would fit, to be asked about. */
	wheelsIn?: 'km/h' | 'mph' | 'm/s';
}

const STEADY_FROM_KMH = 15;
/** Left and right within this share of each other: the vehicle rolls straight. */
const STRAIGHT_SHARE = 0.004;
const FEWEST_SAMPLES = 20;
/** More moments than this tell no more. */
const ENOUGH_SAMPLES = 20_000;
const STEERING_OFF_DEG = 5;
const STILL_KMH = 0.3;
const YAW_OFF_DEGPS = 1;
const YAW_AGREES_SHARE = 0.35;
const TURNING_DEGPS = 6;
const SUPPLY_LOW_V = 9.5;
/** Ratio of the vehicle's own speed to the wheels' that is no difference of tyres. */
const UNITS_OFF_SHARE = 0.2;
const GAP_INTERVALS = 3;
const GAP_LEAST_S = 0.25;

/** Holds what else was recorded against the wheels: is it centred, is it the right unit, is there a hole? */
export function plausibilityNotes(
	table: WheelTable,
	recording: Recording,
	{ trackM, wheelbaseM }: { trackM: number; wheelbaseM: number }
): LiveNote[] {
	return [
		steeringNote(table, recording),
		...yawNotes(table, recording, trackM),
		bendNote(table, trackM, wheelbaseM),
		vehicleNote(table, recording),
		paceNote(table),
		supplyNote(recording),
		gapNote(table)
	].filter((note) => note !== null);
}

/** Right less left over the mean, of the axle that is whole; NaN where none is. */
function turnShare({ names, kmh }: WheelTable): (i: number) => number {
	const pairs = names.flatMap((name, k) => {
		const mate = names.indexOf(name.replace('_left', '_right'));
		return name.endsWith('_left') && mate >= 0 ? [[kmh[k], kmh[mate]] as const] : [];
	});
	// The last axle is not steered: its difference is the purest.
	const [left, right] = pairs.at(-1) ?? [];
	return (i) => {
		const [l, r] = [left?.[i] ?? NaN, right?.[i] ?? NaN];
		return (r - l) / ((r + l) / 2);
	};
}

function steeringNote(table: WheelTable, { channels }: Recording): LiveNote | null {
	const steering = channels.get('steering');
	if (!steering) return null;
	const turn = turnShare(table);
	const straight: number[] = [];
	for (let i = 0; i < table.timeS.length; i++) {
		if ((table.reference[i] ?? 0) > STEADY_FROM_KMH && Math.abs(turn(i)) < STRAIGHT_SHARE) {
			const angle = steering[i] ?? NaN;
			if (!Number.isNaN(angle)) straight.push(angle);
		}
	}
	if (straight.length < FEWEST_SAMPLES) return null;
	const middle = medianOf(straight);
	if (Math.abs(middle) < STEERING_OFF_DEG) return null;
	return {
		channel: 'steering',
		value: middle,
		text: `The steering angle reads ${middle.toFixed(0)}° while the wheels roll straight: not centred, or its zero was never set.`
	};
}

function yawNotes(table: WheelTable, { channels }: Recording, trackM: number): LiveNote[] {
	const yaw = channels.get('yaw');
	if (!yaw) return [];
	const notes: LiveNote[] = [];
	const still: number[] = [];
	const ratios: number[] = [];
	const turn = turnShare(table);
	for (let i = 0; i < table.timeS.length; i++) {
		const now = yaw[i] ?? NaN;
		if (Number.isNaN(now)) continue;
		const speed = table.reference[i] ?? NaN;
		if (speed < STILL_KMH) still.push(now);
		// Left and right differ by r·t; a left turn is positive.
		const byWheels = ((turn(i) * speed) / 3.6 / trackM) * (180 / Math.PI);
		if (speed > STEADY_FROM_KMH && Math.abs(byWheels) > TURNING_DEGPS) ratios.push(now / byWheels);
	}
	const offset = still.length >= FEWEST_SAMPLES ? medianOf(still) : 0;
	if (Math.abs(offset) > YAW_OFF_DEGPS) {
		notes.push({
			channel: 'yaw',
			value: offset,
			text: `The yaw rate reads ${offset.toFixed(1)} °/s at standstill: its zero is off.`
		});
	}
	const ratio = ratios.length >= FEWEST_SAMPLES ? medianOf(ratios) : 1;
	if (Math.abs(ratio - 1) > YAW_AGREES_SHARE) {
		notes.push({
			channel: 'yaw',
			value: ratio,
			text:
				Math.abs(ratio) < 0.1
					? 'The yaw rate does not follow the bends that the wheels tell of.'
					: ratio < 0
						? 'The yaw rate turns the other way than the wheels: mounted the wrong way round, or another sign.'
						: `The yaw rate reads ${ratio.toFixed(1)} times what the wheels say in bends: another unit, track or sensor.`
		});
	}
	return notes;
}

/** A bend tight enough that the front axle's wider path shows. */
const TIGHT_SHARE = 0.06;
const BEND_AGREES_SHARE = 0.035;

/**
 * In a bend the steered front axle runs on the wider circle: with the rear axle's middle on radius R it rolls √(R² + L²)
 *. R comes from the rear wheels' difference; what the front wheels read must fit it.
 */
function bendNote(
	{ names, kmh, reference }: WheelTable,
	trackM: number,
	wheelbaseM: number
): LiveNote | null {
	const four = ['front_left', 'front_right', 'rear_left', 'rear_right'].map(
		(name) => kmh[names.indexOf(name)]
	);
	const [fl, fr, rl, rr] = four;
	if (!fl || !fr || !rl || !rr) return null;
	const straight: number[] = [];
	const bent: number[] = [];
	const stride = Math.max(1, Math.floor(reference.length / ENOUGH_SAMPLES));
	for (let i = 0; i < reference.length; i += stride) {
		if (!((reference[i] ?? NaN) > STEADY_FROM_KMH)) continue;
		const rear = ((rl[i] ?? NaN) + (rr[i] ?? NaN)) / 2;
		const front = ((fl[i] ?? NaN) + (fr[i] ?? NaN)) / 2;
		const share = ((rr[i] ?? NaN) - (rl[i] ?? NaN)) / rear;
		// A signal that is gone has no bend in it.
		if (four.some((own) => Math.abs((own?.[i] ?? NaN) / rear - 1) > 0.35)) continue;
		if (Math.abs(share) < STRAIGHT_SHARE) straight.push(front / rear);
		// (R + t/2) / (R − t/2) gives share = t/R.
		else if (Math.abs(share) > TIGHT_SHARE && Math.abs(share) < 0.5)
			bent.push(front / rear / Math.hypot(1, (wheelbaseM * share) / trackM));
	}
	if (straight.length < FEWEST_SAMPLES || bent.length < FEWEST_SAMPLES) return null;
	const apart = medianOf(bent) / medianOf(straight) - 1;
	if (Math.abs(apart) < BEND_AGREES_SHARE) return null;
	return {
		channel: 'front',
		value: apart,
		text: `In bends the front wheels read ${Math.abs(apart * 100).toFixed(0)} % ${apart > 0 ? 'more' : 'less'} than the rear ones’ bend asks for: another track or wheelbase, or one of the rear signals is not right in bends.`
	};
}

/** Units by which the wheels' columns may be off, by the factor that would put them right. */
const UNIT_RATIOS: [number, NonNullable<LiveNote['wheelsIn']>, string][] = [
	[1.609344, 'mph', 'mph taken for km/h'],
	[1 / 1.609344, 'km/h', 'km/h taken for mph'],
	[3.6, 'm/s', 'm/s taken for km/h'],
	[1 / 3.6, 'km/h', 'km/h taken for m/s']
];

function vehicleNote(table: WheelTable, { channels }: Recording): LiveNote | null {
	const vehicle = channels.get('vehicle');
	if (!vehicle) return null;
	const ratios: number[] = [];
	for (let i = 0; i < table.timeS.length; i++) {
		const speeds = table.kmh.map((own) => own[i] ?? NaN).filter((value) => value > STEADY_FROM_KMH);
		if (speeds.length >= Math.min(2, table.kmh.length) && (vehicle[i] ?? 0) > 1)
			ratios.push(medianOf(speeds) / (vehicle[i] ?? NaN));
	}
	if (ratios.length < FEWEST_SAMPLES) return null;
	const ratio = medianOf(ratios);
	if (Math.abs(ratio - 1) < UNITS_OFF_SHARE) return null;
	const [, wheelsIn, unit] = UNIT_RATIOS.find(([factor]) => Math.abs(1 / ratio / factor - 1) < 0.06) ?? [];
	return {
		channel: 'vehicle',
		value: ratio,
		wheelsIn,
		text: `The wheels read ${ratio.toFixed(2)} times the vehicle speed: ${unit ? `looks like ${unit} in the wheels’ columns` : 'check the units of the columns, and the tyre size coded'}.`
	};
}

/** More than a full braking on dry road, over a second. */
const IMPOSSIBLE_KMH_PER_S = 42;
const IMPOSSIBLE_TIMES = 3;

/** Speeds that change faster than any vehicle can are in another unit, or on another clock. */
function paceNote({ timeS, reference }: WheelTable): LiveNote | null {
	let [times, most, from] = [0, 0, 0];
	let quietUntilS = -Infinity;
	for (let i = 0; i < timeS.length; i++) {
		const at = timeS[i] ?? 0;
		while (at - (timeS[from] ?? 0) > 1) from += 1;
		const overS = at - (timeS[from] ?? 0);
		const pace = Math.abs((reference[i] ?? NaN) - (reference[from] ?? NaN)) / overS;
		if (!(overS > 0.5 && pace > IMPOSSIBLE_KMH_PER_S) || at < quietUntilS) continue;
		times += 1;
		most = Math.max(most, pace);
		quietUntilS = at + 2;
	}
	if (times < IMPOSSIBLE_TIMES) return null;
	return {
		channel: 'time',
		value: most,
		text: `All wheels change by up to ${most.toFixed(0)} km/h in a second, ${times} times, which no vehicle does: is the unit right, and the clock?`
	};
}

function supplyNote({ channels }: Recording): LiveNote | null {
	const supply = channels.get('supply');
	if (!supply) return null;
	let lowest = Infinity;
	for (const volts of supply) if (volts < lowest) lowest = volts;
	if (!(lowest < SUPPLY_LOW_V)) return null;
	return {
		channel: 'supply',
		value: lowest,
		text: `The supply falls to ${lowest.toFixed(1)} V: below about ${SUPPLY_LOW_V} V modules stop judging and codes for low supply come.`
	};
}

function gapNote({ timeS, intervalS }: WheelTable): LiveNote | null {
	let [gaps, missingS] = [0, 0];
	const least = Math.max(GAP_LEAST_S, GAP_INTERVALS * intervalS);
	for (let i = 1; i < timeS.length; i++) {
		const stepS = (timeS[i] ?? 0) - (timeS[i - 1] ?? 0);
		if (stepS <= least) continue;
		gaps += 1;
		missingS += stepS - intervalS;
	}
	if (gaps === 0) return null;
	return {
		channel: 'time',
		value: missingS,
		text: `The recording has ${gaps === 1 ? 'a hole' : `${gaps} holes`}, ${missingS.toFixed(1)} s in all: what happened then nobody knows.`
	};
}
