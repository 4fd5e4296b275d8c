import type { PathPlace } from '../../../../library/measurePoints';
import type { Link } from '../../../../library/links';
import { halve, type Halving, type PointReading, type WirePoint } from '../../core/electrical/halving';
import type { HARNESS_FAULTS } from '../entries/harness-search/payload';

export type HarnessFault = (typeof HARNESS_FAULTS)[number];

/** How likely a stretch is at fault beside others: contacts more than a metre of wire, the last metre at the wheel most. */
const CONTACT_WEIGHT = 2;
const WIRE_WEIGHT_PER_M = 0.5;
const MOVING_WEIGHT = 2.5;

/** How a fault of each kind is told at a point, and what the words *good* and *bad* mean there. */
export const FAULT_RULES: Record<
	HarnessFault,
	{
		how: Record<'feed' | 'signal', string>;
		mode: 'volts-dc' | 'ohms';
		good: string;
		bad: string;
		opens: boolean;
	}
> = {
	open: {
		how: {
			feed: 'Open the sensor’s plug, key on. The module’s voltage is there up to the break, and gone behind it.',
			signal:
				'Open the sensor’s plug and put a resistor of about 750 Ω from its feed to this wire, key on. From there the voltage is there up to the break, and gone behind it.'
		},
		mode: 'volts-dc',
		good: 'voltage as at the fed end',
		bad: 'no voltage',
		opens: false
	},
	resistance: {
		how: {
			feed: 'Everything plugged, key on: the sensor draws its current. Where the voltage has fallen, the resistance lies before.',
			signal:
				'Open the sensor’s plug and put a resistor of about 750 Ω from its feed to this wire, key on. Where the voltage has fallen, the resistance lies before.'
		},
		mode: 'volts-dc',
		good: 'voltage as at the fed end',
		bad: 'voltage has fallen',
		opens: false
	},
	short: {
		how: {
			feed: 'Key off, both ends open. At a plug that is opened in between, measure the module’s side to the body: still shorted there, the fault is on that side; free, it is further on.',
			signal:
				'Key off, both ends open. At a plug that is opened in between, measure the module’s side to the body: still shorted there, the fault is on that side; free, it is further on.'
		},
		mode: 'ohms',
		good: 'free on the module’s side',
		bad: 'still shorted on the module’s side',
		opens: true
	}
};

/** The places of a wire in the order in which a fault is looked for, from the good end, with how likely each stretch is. */
export function searchOf(
	path: readonly PathPlace[],
	wire: 'feed' | 'signal',
	fault: HarnessFault
): { places: PathPlace[]; points: WirePoint[]; weights: number[] } {
	// The feed comes from the module; what a substitute puts on the signal wire comes from the wheel.
	const turned = wire === 'signal' && fault !== 'short';
	const places = turned ? [...path].reverse() : [...path];
	const weights = places.slice(0, -1).map((place, i) => {
		const next = places[i + 1] ?? place;
		const near = turned ? next : place;
		if (near.contactNext) return CONTACT_WEIGHT;
		const moves = [place.where, next.where].includes('at the wheel');
		return WIRE_WEIGHT_PER_M * near.toNextM + (moves ? MOVING_WEIGHT : 0);
	});
	return {
		places,
		weights,
		points: places.map(({ node, behind, accessMin }, i) => ({
			id: node,
			behind,
			accessMin,
			// A short is divided only where the wire can be opened; of a plug's two sides one is enough.
			probed: fault === 'short' ? node.endsWith(':a') : i > 0 && i < places.length - 1
		}))
	};
}

export function planSearch(
	path: readonly PathPlace[],
	wire: 'feed' | 'signal',
	fault: HarnessFault,
	readings: Readonly<Record<string, PointReading>>,
	exposed: readonly string[]
): Halving & { places: PathPlace[] } {
	const { places, points, weights } = searchOf(path, wire, fault);
	return { places, ...halve(points, weights, readings, exposed) };
}

/** How a reading at a place reads, against what stands at the fed end; null where the meter cannot tell. */
export function readsAs(fault: HarnessFault, value: number | null, fedVolts: number): PointReading | null {
	if (fault === 'short') {
		if (value === null || value > 100_000) return 'good';
		return value < 1_000 ? 'bad' : null;
	}
	if (value === null) return null;
	const share = fedVolts > 0 ? value / fedVolts : 0;
	if (fault === 'open') return share > 0.8 ? 'good' : share < 0.4 ? 'bad' : null;
	return share > 0.96 ? 'good' : share < 0.9 ? 'bad' : null;
}

/** What is found once two neighbours enclose the fault. */
export function foundAt(
	places: readonly PathPlace[],
	between: readonly [string, string]
): { says: string; todo: string; implicates: Link[] } {
	const from = places.find(({ node }) => node === between[0]);
	const to = places.find(({ node }) => node === between[1]);
	if (!from || !to) return { says: 'Between the two ends.', todo: '', implicates: ['harness'] };
	if (from.behind === to.behind) {
		const plug =
			from.where === 'at the wheel'
				? 'sensor-connector'
				: from.node.includes(':a') || from.node.includes(':b')
					? 'harness'
					: 'module-connector';
		return {
			says: `The fault is in the plug itself: ${plugWords(from)}.`,
			todo: 'Clean it, look at pin and socket, re-pin if they are spread.',
			implicates: [plug]
		};
	}
	return {
		says: `The fault is in the ${from.colour} wire between ${from.words} and ${to.words}.`,
		todo: 'Repair the lead there, or renew it.',
		implicates: ['harness']
	};
}

const plugWords = ({ words, behind, where }: PathPlace) =>
	/^X\d/.test(behind)
		? `${behind}, ${where}`
		: where === 'at the wheel'
			? 'at the sensor'
			: words.replace(/, pin.*/, '');
