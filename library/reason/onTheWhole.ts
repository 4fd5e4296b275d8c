import type { Fault } from '../faults';
import { libraryWeight } from './odds';
import { NOT_DESCRIBED } from './notDescribed';
import { placeOfAll, type PlacedFault, type ReasonModel } from './placed';

/** A test that is made for a described fault finds what is not described this much more rarely. */
const AS_DESCRIBED = 0.25;
/** And more rarely still at another place than its own. */
const ELSEWHERE = AS_DESCRIBED ** 2;
/** How often a fault that nobody has described shows what no described one does. */
const STRANGE = 0.3;

/** What is not described shows a sign as the described faults of its place do on the whole, by the library's own odds. */
export function asOnTheWhole(
	placedFaults: readonly PlacedFault[],
	rows: ReasonModel['rows'],
	width: number,
	chance: Float64Array,
	acts: Uint8Array,
	{ open, clear, place, tested }: { open: boolean; clear: readonly boolean[]; place: string; tested: boolean }
): void {
	const places = new Map<string, number>();
	for (const { fault } of placedFaults) places.set(fault.id, (places.get(fault.id) ?? 0) + 1);
	const sums = new Map<string, { total: number; mean: Float64Array; acts: boolean }>();
	for (const [row, { fault: index, share }] of rows.entries()) {
		const one = placedFaults[index] as PlacedFault;
		if (one.fault.id === NOT_DESCRIBED) continue;
		const weight = (libraryWeight(one.fault.id) / (places.get(one.fault.id) ?? 1)) * share;
		for (const like of [null, one.fault.link]) {
			const at = likeAt(one, like);
			const known = sums.get(at) ?? { total: 0, mean: new Float64Array(width), acts: false };
			sums.set(at, known);
			known.total += weight;
			known.acts ||= acts[row] === 1;
			for (let o = 0; o < width; o++)
				known.mean[o] = (known.mean[o] ?? 0) + weight * (chance[row * width + o] ?? 0);
		}
	}
	for (const [row, { fault: index, bin, like: link }] of rows.entries()) {
		const one = placedFaults[index] as PlacedFault;
		if (one.fault.id !== NOT_DESCRIBED) continue;
		// Slight, it shows at its own place alone; plain, wherever faults of its place show on the whole.
		if (bin === 'slight' && one.place !== place && one.place !== 'vehicle') continue;
		const whole = sums.get(likeAt(one, link));
		// What no described fault shows is its own.
		const strange = open && one.place === place ? STRANGE : 0;
		const isHere = one.place === place || one.place === 'vehicle';
		const like = tested ? (isHere ? AS_DESCRIBED : ELSEWHERE) : 1;
		if (!whole?.acts && strange === 0) continue;
		for (let o = 0; o < width; o++) {
			const asSound = chance[row * width + o] ?? 0;
			// What is seen clearly is what the library describes, and nothing else.
			const mean = clear[o] ? asSound : (whole?.mean[o] ?? 0) / (whole?.total ?? 1);
			const usual = whole ? like * mean + (1 - like) * asSound : asSound;
			chance[row * width + o] = (1 - strange) * usual + (o === width - 1 ? strange : 0);
		}
		if (clear.includes(true)) toOne(chance, row * width, width);
		acts[row] = 1;
	}
}

const likeAt = (one: PlacedFault, link: Fault['link'] | null) => `${placeOfAll(one)}/${link ?? ''}`;

function toOne(chance: Float64Array, from: number, width: number): void {
	const all = chance.subarray(from, from + width);
	const sum = all.reduce((a, b) => a + b, 0);
	for (const [o, p] of all.entries()) all[o] = p / sum;
}
