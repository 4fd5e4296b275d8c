import { outcomeIndex, type Observation } from '../../src/lib/core/path/model';
import type { ReasonModel } from './placed';
import { GENERAL_METHOD } from './notDescribed';
import { signKey, signs, splitKey } from './signs';

/** A repair should have ended what its faults show so many times as often as a sound vehicle. */
const SHOULD_HAVE_ENDED_TIMES = 4;
/** With each repair that did not help it is likelier that what is wrong is not described: what is left to the described. */
const STILL_DESCRIBED = 0.7;

/**
 * How many repairs did not help: what their faults show was there before, and is there again after them.
 *
 * @param done by repair in order: the repairs of the model that it comes to
 */
export function repairsWithoutHelp(
	model: ReasonModel,
	observations: readonly Observation[],
	done: readonly ReadonlySet<number>[]
): number {
	const shown = observations.flatMap(({ sign, outcome, epoch }) => {
		const { sign: id, place } = splitKey(sign);
		const table = isJudgedBy(id) ? model.sign(`${id}@${place}`) : null;
		const at = table ? outcomeIndex(table, outcome) : -1;
		return table && at !== table.good ? [{ key: signKey(id, place), id, place, table, at, epoch }] : [];
	});
	return done.filter((repairs, i) => {
		const own = [...repairs].flatMap((index) => model.repairs[index] ?? []);
		// A search is no guess.
		if (own.every(({ kind }) => kind === GENERAL_METHOD)) return false;
		const wheels = own.map(({ place }) => place).filter((place) => isWheel(model, place));
		const cured = [...model.faults.keys()].filter((fault) =>
			model.faults[fault]?.curedBy.some((repair) => repairs.has(repair))
		);
		const before = new Set(shown.filter(({ epoch }) => epoch <= i).map(({ key }) => key));
		const places = new Set(own.map(({ place }) => place));
		return shown.some(({ key, id, place, table, at, epoch }) => {
			if (epoch !== i + 1 || !before.has(key)) return false;
			if (FOLLOWS.includes(id) && !places.has(place)) return false;
			// A repair at a wheel is judged at that wheel: another may have a fault of its own.
			if (wheels.length > 0 && !wheels.includes(place)) return false;
			const width = table.outcomes.length;
			const least = SHOULD_HAVE_ENDED_TIMES * (table.sound[at] ?? 0);
			return cured.some((fault) => (table.chance[(model.rows.length + fault) * width + at] ?? 0) > least);
		});
	}).length;
}

/** What others say of a module follows from whatever is wrong with it: it judges a repair at that module alone. */
const FOLLOWS: readonly string[] = ['accused', 'deaf'];
const isJudgedBy = (sign: string): boolean => sign === 'road' || signs.get(sign)?.toExplain === true;
const isWheel = ({ type }: ReasonModel, place: string): boolean =>
	type.wheels.some(({ position }) => position === place);

/** How likely it is that something not described is wrong, after so many repairs that did not help. */
export const shareAfter = (share: number, withoutHelp: number): number =>
	1 - (1 - share) * STILL_DESCRIBED ** withoutHelp;
