/**
 * Chance that an intermittent fault which was *not* repaired would have stayed silent all the same.
 *
 * Before the repair it returned `returns` times over an exposure D (kilometres, or minutes under its set conditions). With a
 * Gamma(k, D) belief about its rate, the chance of no return over a further exposure d is (D / (D + d))^k: the mean of exp(−rate · d) over that belief.
 *
 * @param returns k, at least 1
 * @param before D, above 0
 * @param after d, at least 0, in the unit of `before`
 * @returns 1 with nothing driven, falling towards 0
 * @throws RangeError for a count or an exposure that cannot be
 */
export function silentChance(returns: number, before: number, after: number): number {
	check(returns, before);
	if (!(after >= 0) || !Number.isFinite(after))
		throw new RangeError(`an exposure after the repair is 0 or more, not ${after}`);
	return (before / (before + after)) ** returns;
}

/**
 * Exposure after the repair until the chance of {@link silentChance} has fallen to a target: D · (p^(−1/k) − 1).
 *
 * @param target p, between 0 and 1
 * @returns in the unit of `before`, from the repair on
 */
export function exposureNeeded(returns: number, before: number, target: number): number {
	check(returns, before);
	if (!(target > 0 && target < 1)) throw new RangeError(`a target lies between 0 and 1, not at ${target}`);
	return before * (target ** (-1 / returns) - 1);
}

function check(returns: number, before: number): void {
	if (!(returns >= 1) || !Number.isFinite(returns))
		throw new RangeError(`a fault returned once or more, not ${returns} times`);
	if (!(before > 0) || !Number.isFinite(before))
		throw new RangeError(`an exposure before the repair is above 0, not ${before}`);
}
