import type { ReasonModel } from './model';
import { ONLY_TOLD } from './ruledSigns';

/**
 * Whether anything but codes and what people tell bears on what a repair would cure: somebody has looked, measured or moved
 * something that shows otherwise under one of its faults.
 *
 * @param seen keys of the signs that were seen since the last repair
 */
export function lookedInto(model: ReasonModel, seen: Iterable<string>): (repair: number) => boolean {
	const tables = [...seen].flatMap((key) => (ONLY_TOLD.test(key) ? [] : (model.sign(key) ?? [])));
	const faults = model.faults.flatMap(({ curedBy }, index) =>
		!model.background.has(index) && tables.some(({ acts }) => acts[model.rows.length + index] === 1)
			? [curedBy]
			: []
	);
	const repairs = new Set(faults.flat());
	return (repair) => repairs.has(repair);
}
