import { fail, ok, type Result } from '../result';

/**
 * Puts work in an order in which each comes after those that it waits for (Kahn 1962); among those that may come next, the
 * one that was named first. What is waited for but not in the list does not hold anything up.
 *
 * @returns ids in order; error: the ids that wait for each other in a circle
 */
export function inOrder(work: readonly { id: string; after: readonly string[] }[]): Result<string[]> {
	const ids = new Set(work.map(({ id }) => id));
	const left = [...work];
	const done = new Set<string>();
	const order: string[] = [];
	while (left.length > 0) {
		const at = left.findIndex(({ after }) => after.every((id) => done.has(id) || !ids.has(id)));
		const [next] = at < 0 ? [] : left.splice(at, 1);
		if (!next) return fail(`these wait for each other: ${left.map(({ id }) => id).join(', ')}`);
		done.add(next.id);
		order.push(next.id);
	}
	return ok(order);
}
