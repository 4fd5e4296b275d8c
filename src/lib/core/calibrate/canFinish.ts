/** A function that a piece of work needs, and what for. */
export interface Needed {
	function: string;
	/** Without it the work may not be begun. */
	before: boolean;
	for: string;
}

export interface CanFinish {
	/** `partly` = it can be begun, and something afterwards has to be done elsewhere; `sublet` = it may not be begun here. */
	answer: 'yes' | 'partly' | 'sublet';
	missing: Needed[];
}

/** Whether a shop can finish a repair: what the work needs against what the shop owns. */
export function canFinish(needed: readonly Needed[], owned: ReadonlySet<string>): CanFinish {
	const missing = needed.filter((one) => !owned.has(one.function));
	const answer = missing.length === 0 ? 'yes' : missing.some(({ before }) => before) ? 'sublet' : 'partly';
	return { answer, missing };
}
