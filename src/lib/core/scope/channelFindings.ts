import type { ScopeOptions } from './options';
import { firstTimes, type ScopeFinding } from './findings';
import { middleOf } from './middleOf';
import { isWithin, type Excursion } from './outliers';
import { IRREGULAR, type Pause, type Rhythm } from './periods';
import type { Pulses } from './pulses';
import { quantileOfSorted } from './quantile';
import { heightsOf, onceATurn, type RingMap } from './ringMap';
import { explainedByFolding, returningPauses } from './turns';
import { times, voltWords } from './words';

/** Effective noise against the swing from which a module may miscount. */
const NOISE_FINDING = 0.2;
/** Longer pauses than this are no few missing teeth, unless they come again each turn. */
const MOST_MISSING = 4.5;
const LEAST_PULSES = 8;
/** With so many teeth before and after it, a ring's own gap would have shown twice. */
const TURN_FOR_SURE = 130;
/** Once-a-turn swing from which a ring is said to run out: amplitude, time up, time from tooth to tooth. */
const RUN_OUT = { height: 0.15, duty: 0.1, period: 0.02 };
/** Of the variance over a turn, what one wave explains before it is called one. */
const ONE_WAVE = 0.5;

export function pauseFindings(
	pulses: Pulses,
	rhythm: Rhythm,
	outside: readonly Excursion[],
	ends: { sample: number; periods: number }[],
	teeth: number | null,
	options: ScopeOptions,
	timeAt: (sample: number) => number
): ScopeFinding[] {
	// Where nothing is regular a long period is no pause.
	if (rhythm.irregularity > IRREGULAR) return [];
	const { pauses } = rhythm;
	const returns = teeth === null ? pauses.map(() => false) : returningPauses(rhythm, pauses, teeth);
	const last = rhythm.tooth.at(-1) ?? 0;
	const alone = (pause: Pause) => {
		// A gap of the ring that the capture is too short to show twice.
		const place = rhythm.tooth[pause.after] ?? 0;
		const turn = teeth ?? TURN_FOR_SURE;
		return pauses.length === 1 && pause.periods < MOST_MISSING && place < turn && last - place < turn;
	};
	// Where the line leaves both its levels no tooth is at fault.
	const electrical = ({ after }: Pause) =>
		outside.some(({ long, sample }) => long && isWithin(pulses, after, sample));
	const ofRing = pauses.filter((pause, i) => !electrical(pause) && (returns[i] || alone(pause)));
	const longest = Math.max(0, ...ofRing.map(({ periods }) => periods));
	const silentEnds = ends.filter(({ periods }) => periods > longest + 0.5);
	const others = pauses.filter((pause) => !ofRing.includes(pause));
	const startOf = ({ after }: Pause) => timeAt(pulses.rise[after] ?? 0);
	const findings: ScopeFinding[] = [];
	if (ofRing.length > 0) {
		const perRev = returns.some((one) => one);
		const value = middleOf(ofRing.map(({ periods }) => periods));
		const places =
			teeth === null
				? []
				: [
						...new Set(
							ofRing.map(({ after }) => ((rhythm.tooth[after] ?? 0) + (options.startTooth ?? 0) + 1) % teeth)
						)
					];
		findings.push({
			type: 'missing-tooth',
			perRev,
			times: firstTimes(ofRing.map(startOf)),
			count: ofRing.length,
			value: Number(value.toFixed(3)),
			text: missingText(value, places.length, perRev, teeth, options.teeth ?? null),
			teeth: perRev ? groupedPlaces(ofRing, rhythm, teeth, options.startTooth ?? 0) : []
		});
	}
	const dropouts = [
		...others.map((pause) => ({ time: startOf(pause), periods: pause.periods })),
		...silentEnds.map(({ sample, periods }) => ({ time: timeAt(sample), periods }))
	].sort((a, b) => a.time - b.time);
	if (dropouts.length > 0) {
		const longest = Math.max(...dropouts.map(({ periods }) => periods));
		findings.push({
			type: 'dropout',
			perRev: false,
			times: firstTimes(dropouts.map(({ time }) => time)),
			count: dropouts.length,
			value: Number(longest.toFixed(2)),
			text: `The signal is lost ${times(dropouts.length)}, for up to ${longest.toFixed(0)} teeth, at no fixed place of the ring: a contact or a wire, not a tooth.`,
			teeth: []
		});
	}
	return findings;
}

/** Every tooth that a returning pause passes over. */
function groupedPlaces(
	ofRing: readonly Pause[],
	{ tooth }: Rhythm,
	teeth: number | null,
	startTooth: number
): number[] {
	if (teeth === null) return [];
	const places = new Set<number>();
	for (const { after, periods } of ofRing)
		for (let k = 1; k < Math.max(2, Math.round(periods)); k++)
			places.add(((tooth[after] ?? 0) + startTooth + k) % teeth);
	return [...places].sort((a, b) => a - b);
}

function missingText(
	periods: number,
	places: number,
	perRev: boolean,
	teeth: number | null,
	known: number | null
): string {
	const missing = Math.max(1, Math.round(periods) - 1);
	const long = `${periods.toFixed(1)} tooth periods long`;
	if (!perRev)
		return `One gap, ${long}: a tooth is missing or the ring is cracked. The capture is too short to see it come again: take two turns.`;
	const each = places > 1 ? `${places} gaps each turn` : 'One gap each turn';
	if (known !== null && teeth !== null && teeth > known)
		return `${each}, ${long}, and all ${known} teeth are there: the ring is cracked and has opened.`;
	const of = teeth === null ? '' : ` of ${teeth}`;
	return missing > 3
		? `${each}, ${long}: about ${missing} teeth${of} in a row are not seen. They are covered, weak or gone.`
		: `${each}, ${long}: a tooth${of} is missing, or the ring is cracked there.`;
}

export function runOutFindings(
	ring: RingMap | null,
	passive: boolean,
	rhythm: Rhythm,
	pulses: Pulses
): ScopeFinding[] {
	if (!ring || ring.turns < 2 || rhythm.irregularity > IRREGULAR) return [];
	// Next to a gap neither height nor time is a tooth's own; a time is held against the six on either side.
	const away = (reach: number) => (k: number) => {
		for (let d = -reach; d <= reach; d++) {
			const at = (k + d + 2 * ring.teeth) % ring.teeth;
			if ((ring.seen[at] ?? 0) <= 0.9 || (ring.period[at] ?? 0) >= LONG_TOOTH) return false;
		}
		return true;
	};
	const kept = (values: readonly number[], whole: (k: number) => boolean) =>
		onceATurn(values.map((value, k) => (whole(k) ? value : 0)));
	const swings: [ReturnType<typeof onceATurn>, number, string][] = [
		passive
			? [kept(ring.height, away(2)), RUN_OUT.height, 'The height of the wave swells and falls']
			: [kept(ring.duty, away(2)), RUN_OUT.duty, 'The pulses grow wider and narrower']
	];
	if (ring.turns >= 3)
		swings.push([
			kept(ring.period, away(7)),
			RUN_OUT.period,
			'The time from tooth to tooth grows and shrinks'
		]);
	const found = swings.find(([{ swing, share }, limit]) => swing > limit && share > ONE_WAVE);
	if (!found) return passive ? looseFindings(ring.teeth, rhythm, pulses) : [];
	const [{ swing }, , words] = found;
	const seen = passive ? ring.height : ring.duty;
	const weakest = seen.reduce(
		(best, value, k) => (value > 0 && value < (seen[best] ?? Infinity) ? k : best),
		0
	);
	return [
		{
			type: 'run-out',
			perRev: true,
			times: [],
			count: Math.floor(ring.turns),
			value: Number(swing.toFixed(3)),
			text: `${words} once each turn, by ±${(100 * swing).toFixed(0)} %: the ring runs out of true, is loose, or the bearing is.`,
			teeth: [weakest]
		}
	];
}
/** Longer times than this belong to a gap, not to run-out. */
const LONG_TOOTH = 1.4;

/** Tallest against smallest waves, speed taken out, from which a ring is said to be loose. */
const LOOSE = 1.8;
/** Of that swing, what the place on the ring explains at most. */
const OF_RING = 0.4;

/** A wave that swells and falls, but not with the turns of the ring: what carries it moves. */
function looseFindings(teeth: number, { tooth, period }: Rhythm, pulses: Pulses): ScopeFinding[] {
	const heights = heightsOf(pulses);
	const perTooth = new Float64Array((tooth.at(-1) ?? 0) + 1).fill(NaN);
	for (let i = 0; i < period.length; i++)
		perTooth[tooth[i] ?? 0] = Math.log(Math.max(1e-6, (heights[i] ?? 0) * (period[i] ?? 1)));
	const sorted = perTooth.filter((value) => !Number.isNaN(value)).sort();
	const ratio = Math.exp(quantileOfSorted(sorted, 0.95) - quantileOfSorted(sorted, 0.05));
	if (!(ratio > LOOSE) || explainedByFolding(perTooth, teeth) > OF_RING) return [];
	return [
		{
			type: 'run-out',
			perRev: false,
			times: [],
			count: 1,
			value: Number(((ratio - 1) / (ratio + 1)).toFixed(3)),
			text: `The height of the wave changes ${ratio.toFixed(1)} times over, but not once each turn: the ring, the sensor or the bearing is loose.`,
			teeth: []
		}
	];
}

export function noiseFindings(
	noiseV: number,
	swingV: number,
	{ irregularity }: Rhythm,
	pulses: Pulses
): ScopeFinding[] {
	const share = noiseV / swingV;
	const irregular = irregularity > IRREGULAR && pulses.count > LEAST_PULSES;
	if (share < NOISE_FINDING && !irregular) return [];
	const why = irregular
		? 'The pulses come at no regular distance: something else than the ring is making some of them.'
		: `The noise is ${(100 * share).toFixed(0)} % of the swing (${voltWords(noiseV)} effective): a module may count it.`;
	return [
		{
			type: 'noise',
			perRev: false,
			times: [],
			count: 1,
			value: Number(noiseV.toFixed(4)),
			text: why,
			teeth: []
		}
	];
}

/** One finding a type: what was found in two ways is told once. */
export function merged(findings: readonly ScopeFinding[]): ScopeFinding[] {
	const kept: ScopeFinding[] = [];
	for (const one of findings) {
		const same = kept.find(({ type }) => type === one.type);
		if (!same) {
			kept.push({ ...one });
			continue;
		}
		const fresh = one.times.filter((time) => same.times.every((known) => Math.abs(known - time) > SAME_S));
		same.times = firstTimes([...same.times, ...fresh].sort((a, b) => a - b));
		same.count += Math.max(0, one.count - (one.times.length - fresh.length));
		if (fresh.length > 0) same.text = `${same.text} ${one.text}`;
	}
	return kept;
}
/** Two ways of seeing one event date it within this. */
const SAME_S = 0.02;
