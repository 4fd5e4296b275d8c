import type { ZxcvbnFactory } from '@zxcvbn-ts/core';

/** 0 = among the first that anybody would try, 4 = nobody guesses it. From 2 on: more than a million tries. */
const LEAST_SCORE = 2;

let ready: Promise<ZxcvbnFactory> | null = null;
const strength = (): Promise<ZxcvbnFactory> =>
	(ready ??= Promise.all([import('@zxcvbn-ts/core'), import('@zxcvbn-ts/language-common')]).then(
		([{ ZxcvbnFactory: Factory }, { dictionary, adjacencyGraphs }]) =>
			new Factory({ dictionary, graphs: adjacencyGraphs })
	));

/**
 * Why a password is too easily guessed, or null. Held against the passwords that are used most, rows of keys and dates, and
 * what everybody here knows of the person.
 * @param known words that a guesser would try first: names, the shop
 */
export async function tooEasy(password: string, known: readonly string[]): Promise<string | null> {
	const { score } = (await strength()).check(password, [...known]);
	return score >= LEAST_SCORE
		? null
		: 'That is among the first that anybody would try: take something longer, such as three words of your own.';
}
