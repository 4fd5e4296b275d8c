import { codeKey, type CodeKey } from '../../core/codes/codeKey';
import type { HeardCode } from '../entries/live-recording/payload';
import { codeName } from '../../core/codes/codeId';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';

/** A code that modules tell of again while it is driven. */
export interface CameBack {
	dtc: string;
	/** The modules that tell of it: of the same code in another module nothing is said. */
	keys: CodeKey[];
	/** "C0045-13 in Brake control, at 43 km/h"; with several modules, how many. */
	words: string;
}

function wordsOf(of: readonly HeardCode[], nameOf: Readonly<Record<string, string>>): string {
	const [first] = of;
	if (!first) return '';
	const { dtc, address, kmh } = first;
	const modules = new Set(of.map((one) => one.address)).size;
	const where = modules > 1 ? `${modules} modules` : (nameOf[address] ?? address);
	const speed = kmh === null ? '' : kmh < 1 ? ', standing' : `, at ${kmh.toFixed(0)} km/h`;
	return `${codeName(dtc)} in ${where}${speed}`;
}

/**
 * What has come back, each code once with the speed at which it was heard first; those that follow from another last.
 *
 * @param known codes that are there anyway (not cleared yet, or expected), and codes that follow from another, `address/dtc`
 * @param nameOf module's name by address
 */
export function cameBack(
	heard: readonly HeardCode[],
	known: { standing: readonly string[]; following: readonly string[] },
	nameOf: Readonly<Record<string, string>>
): CameBack[] {
	const byCode = new Map<string, HeardCode[]>();
	for (const one of heard) {
		if (!tellsOfFault(one.status) || known.standing.includes(codeKey(one))) continue;
		byCode.set(one.dtc, [...(byCode.get(one.dtc) ?? []), one]);
	}
	const follows = (of: readonly HeardCode[]) =>
		Number(of.every((one) => known.following.includes(codeKey(one))));
	return [...byCode.entries()]
		.sort(([, a], [, b]) => follows(a) - follows(b))
		.map(([dtc, of]) => ({ dtc, keys: [...new Set(of.map(codeKey))], words: wordsOf(of, nameOf) }));
}

/** Codes whose module has said meanwhile that their test has run, and found nothing. */
export const testRan = (heard: readonly HeardCode[]): CodeKey[] =>
	heard
		.filter(({ status }) => !tellsOfFault(status) && !decodeStatus(status).notTestedSinceClear)
		.map(codeKey);
