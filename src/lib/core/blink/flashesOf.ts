import type { Flash } from './readFlashes';

/** How a lamp shows a code: seconds lit, dark within a group, between groups, and between two showings. */
export interface LampTiming {
	litS: number;
	darkS: number;
	betweenGroupsS: number;
	betweenCyclesS: number;
}

export const USUAL_TIMING: LampTiming = { litS: 0.3, darkS: 0.3, betweenGroupsS: 1.5, betweenCyclesS: 3.5 };

/** The flashes of a code, shown `times` over, from second 0. Pauses are dark time, from out to lit. */
export function flashesOf(
	groups: readonly number[],
	times: number,
	timing: LampTiming = USUAL_TIMING
): Flash[] {
	const flashes: Flash[] = [];
	let now = 0;
	for (let showing = 0; showing < times; showing++) {
		for (const [g, count] of groups.entries()) {
			for (let i = 0; i < count; i++) {
				flashes.push({ onS: now, offS: now + timing.litS });
				now += timing.litS + (i + 1 < count ? timing.darkS : 0);
			}
			now += g + 1 < groups.length ? timing.betweenGroupsS : timing.betweenCyclesS;
		}
	}
	return flashes;
}

/** The flashes of several codes, one after the other and then from the first again, `rounds` times. */
export function flashesInTurn(
	codes: readonly (readonly number[])[],
	rounds: number,
	timing: LampTiming = USUAL_TIMING
): Flash[] {
	const flashes: Flash[] = [];
	let from = 0;
	for (let round = 0; round < rounds; round++)
		for (const groups of codes) {
			for (const { onS, offS } of flashesOf(groups, 1, timing))
				flashes.push({ onS: from + onS, offS: from + (offS ?? onS) });
			from = (flashes.at(-1)?.offS ?? from) + timing.betweenCyclesS;
		}
	return flashes;
}
