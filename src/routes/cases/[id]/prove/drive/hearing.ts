import type { HeardCode } from '$lib/case/livePayloads';
import { codeWithSuffix } from '$lib/core/codes/dtc';
import { decodeStatus, tellsOfFault } from '$lib/core/codes/status';

/** A code that its module tells of again while it is driven. */
export interface CameBack {
	key: string;
	/** "C0045-13 in Brake control, at 43 km/h". */
	words: string;
}

const keyOf = ({ address, dtc }: HeardCode) => `${address}/${dtc}`;

/**
 * What has come back, each code once, as it was heard first.
 *
 * @param standing codes that are there anyway, `address/dtc`: not cleared yet, or expected
 * @param nameOf module's name by address
 */
export function cameBack(
	heard: readonly HeardCode[],
	standing: readonly string[],
	nameOf: Readonly<Record<string, string>>
): CameBack[] {
	const found = new Map<string, CameBack>();
	for (const one of heard) {
		const key = keyOf(one);
		if (!tellsOfFault(one.status) || standing.includes(key) || found.has(key)) continue;
		const speed = one.kmh === null ? '' : one.kmh < 1 ? ', standing' : `, at ${one.kmh.toFixed(0)} km/h`;
		found.set(key, {
			key,
			words: `${codeWithSuffix(one.dtc)} in ${nameOf[one.address] ?? one.address}${speed}`
		});
	}
	return [...found.values()];
}

/** Codes whose module has said meanwhile that their test has run, and found nothing. */
export const testRan = (heard: readonly HeardCode[]): string[] =>
	heard.filter(({ status }) => !tellsOfFault(status) && !decodeStatus(status).notTestedSinceClear).map(keyOf);
