import type { CodeKey } from '../../core/codes/codeKey';
import type { Driven } from '../../core/prove/odometer';
import type { PayloadOf } from '../entries/registry';
import { testRan, type CameBack } from '../listen/hearing';
import type { HeardCode } from '../entries/live-recording/payload';
import { kmOf } from './drivenKm';
import type { DriveGoal, ProvingDrivePlan } from './provingDrive';

/** How far a proving drive has come, from what was driven and what the modules said meanwhile. */

/** How one goal stands; a module's own word beats what the signals show. */
export type GoalStanding = 'came-back' | 'module-says-run' | 'met' | 'now' | 'open';

export interface DriveProgress {
	goals: (DriveGoal & { standing: GoalStanding })[];
	/** Goals that are still open. */
	left: number;
	/** Of what was driven, what counts for what comes and goes, km. */
	countsKm: number;
	/** Still to be driven for it, km. */
	furtherKm: number;
	/** Whether nothing is left to drive for. */
	complete: boolean;
}

type DriveSaid = PayloadOf<'proving-drive'>;
type Road = DriveSaid['road'];

/**
 * @param covered names of goals that the signals have met, also before a reload
 * @param now names of goals whose condition holds at this moment
 * @param back codes that came back, by their modules
 */
export function driveProgress(
	{ tasks, exposure }: Pick<ProvingDrivePlan, 'tasks' | 'exposure'>,
	driven: Pick<Driven, 'km' | 'bands'>,
	road: Road,
	{
		covered,
		now,
		heard,
		back
	}: {
		covered: readonly string[];
		now: readonly string[];
		heard: readonly HeardCode[];
		back: readonly Pick<CameBack, 'keys'>[];
	}
): DriveProgress {
	const returned = new Set<CodeKey>(back.flatMap(({ keys }) => keys));
	const ran = new Set(testRan(heard));
	const saidSo = ({ codes }: DriveGoal) => codes.length > 0 && codes.every((key) => ran.has(key));
	const standingOf = (goal: DriveGoal): GoalStanding => {
		const { name, codes } = goal;
		if (codes.some((key) => returned.has(key))) return 'came-back';
		if (saidSo(goal)) return 'module-says-run';
		if (covered.includes(name)) return 'met';
		return now.includes(name) ? 'now' : 'open';
	};
	const goals = tasks.map((goal) => ({ ...goal, standing: standingOf(goal) }));
	const left = tasks.filter((goal) => !covered.includes(goal.name) && !saidSo(goal)).length;
	const countsKm = kmOf({ distanceKm: driven.km, road, bands: driven.bands }, exposure?.showsWhen ?? null);
	const furtherKm = exposure ? Math.max(0, exposure.km - countsKm) : 0;
	return { goals, left, countsKm, furtherKm, complete: left === 0 && furtherKm === 0 };
}

/** The drive in one line: what has failed it, what is planned, or what is still to do. */
export function driveHeadline(
	{ tasks, exposure, minutes, km }: Pick<ProvingDrivePlan, 'tasks' | 'exposure' | 'minutes' | 'km'>,
	{ left, furtherKm, complete }: DriveProgress,
	hasBegun: boolean,
	failures: readonly string[]
): string {
	if (failures.length > 0) return `It came back: ${failures[0]}`;
	if (tasks.length === 0 && !exposure) return 'No test waits for a drive';
	if (!hasBegun) {
		const further = exposure ? `, then ${exposure.km.toFixed(0)} km more` : '';
		return `In ${Math.max(1, Math.round(minutes))} min and ${km.toFixed(1)} km every test can run${further}`;
	}
	if (complete) return 'All of it is covered';
	const tests = left > 0 ? `${left} of ${tasks.length} still to cover` : 'Every test could run';
	return furtherKm > 0 ? `${tests}, ${furtherKm.toFixed(1)} km to go` : tests;
}

/** A drive has its length to the metre, a band of it to the centimetre: what is added up must not lose any. */
const KM_DIGITS = 2;
const BAND_DIGITS = 5;
const SHORTEST_KM = 0.01;

/** The entry of a drive. @param said by whoever drove it */
export const driveEntry = (
	driven: Driven,
	said: { road: Road; driver: string; note: string },
	covered: readonly string[],
	recordings: readonly string[]
): DriveSaid => ({
	distanceKm: Math.max(SHORTEST_KM, Number(driven.km.toFixed(KM_DIGITS))),
	topSpeedKmh: Math.max(1, Math.round(driven.topKmh)),
	stops: driven.stops,
	road: said.road,
	driver: said.driver,
	bands: driven.bands.map((band) => ({ ...band, km: Number(band.km.toFixed(BAND_DIGITS)) })),
	recordings: [...recordings],
	note: [said.note, covered.length > 0 ? `Covered: ${covered.join('; ')}` : ''].filter(Boolean).join('. ')
});
