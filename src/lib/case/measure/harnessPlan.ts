import type { PathPlace } from '../../../../library/measurePoints';
import type { Link } from '../../../../library/links';
import { halve, type Halving, type PointReading, type WirePoint } from '../../core/electrical/halving';
import { OVER_RANGE, type MeterReading } from './reading';
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
		const moves = place.at === 'sensor' || next.at === 'sensor';
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

/** From here up a wire is free of any short, Ω. */
const FREE_FROM_OHMS = 100_000;
/** Below this it is shorted, Ω. */
const SHORTED_BELOW_OHMS = 1_000;
/** Of what stands at the fed end: as good as all of it, and clearly less. */
const SHARES: Record<'open' | 'resistance', { goodFrom: number; badBelow: number }> = {
	open: { goodFrom: 0.8, badBelow: 0.4 },
	resistance: { goodFrom: 0.96, badBelow: 0.9 }
};

/** How a reading at a place reads, against what stands at the fed end; null where the meter cannot tell. */
export function readsAs(
	fault: HarnessFault,
	reading: MeterReading | null,
	fedVolts: number
): PointReading | null {
	if (reading === null) return null;
	if (fault === 'short') {
		if (reading === OVER_RANGE || reading > FREE_FROM_OHMS) return 'good';
		return reading < SHORTED_BELOW_OHMS ? 'bad' : null;
	}
	if (reading === OVER_RANGE) return null;
	const share = fedVolts > 0 ? reading / fedVolts : 0;
	const { goodFrom, badBelow } = SHARES[fault];
	return share > goodFrom ? 'good' : share < badBelow ? 'bad' : null;
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
		return {
			says: `The fault is in the plug itself: ${plugWords(from)}.`,
			todo: 'Clean it, look at pin and socket, re-pin if they are spread.',
			implicates: [CONTACT_LINKS[from.at]]
		};
	}
	return {
		says: `The fault is in the ${from.colour === null ? '' : `${from.colour} `}wire between ${from.words} and ${to.words}.`,
		todo: 'Repair the lead there, or renew it.',
		implicates: ['harness']
	};
}

/** The link that the contacts of a plug are. */
const CONTACT_LINKS: Record<PathPlace['at'], Link> = {
	sensor: 'sensor-connector',
	plug: 'harness',
	module: 'module-connector'
};

function plugWords({ at, behind, where }: PathPlace): string {
	if (at === 'plug') return `${behind}, ${where}`;
	return at === 'sensor' ? 'at the sensor' : where;
}
