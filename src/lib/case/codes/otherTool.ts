import type { VehicleType } from '../../../../library';
import { dtcHex } from '../../core/codes/dtc';
import { findCodes, type FoundCode } from '../../core/codes/findCodes';
import { formatSpelling } from '../../core/codes/spelling';
import { encodeStatus, decodeStatus, tellsOfFault } from '../../core/codes/status';
import { fail, ok, type Result } from '../../core/result';
import type { PayloadOf } from '../entries/entry';
import type { ScannedCode, ScannedModule } from '../entries/network-scan/payload';

/** A reading that another tool made, as somebody wrote it down: it counts as a reading, on the word of that person. */

/** What somebody says of one module. */
export interface ModuleTold {
	role: string;
	said: 'codes' | 'no-codes' | 'no-answer' | 'not-asked';
	/** Its codes in any spelling, with what the tool says of their state. */
	codes: string;
}

export interface ReadingTold {
	tool: string;
	modules: readonly ModuleTold[];
	/** The tool says, or shows, that the tests of its codes have run since the clear. */
	testsRan: boolean;
	/** The print-out, as it came. */
	text: string;
}

const [FAILED, PENDING, CONFIRMED, NOT_TESTED] = [0x01, 0x04, 0x08, 0x10] as const;
const ALL_BITS = 0xff;
const FAILING_NOW = /^(?:active|present|current|permanent|static|test failed)$/i;
const NOT_NOW =
	/^(?:not present|not active|inactive|history|historic|passive|sporadic|intermittent|previous|memory)$/i;
const ONLY_PENDING = /^(?:pending|maturing|unconfirmed)$/i;

/** Status byte by the tool's own words, and the bits that those words speak of. */
function statusOf({ code, words }: FoundCode): { status: number; known: number } {
	if (code.kind === 'dtc' && code.status !== null) return { status: code.status, known: ALL_BITS };
	const none = decodeStatus(0);
	const says = (pattern: RegExp) => words.some((word) => pattern.test(word));
	const pending = says(ONLY_PENDING);
	const failing = says(FAILING_NOW);
	const status = encodeStatus({ ...none, confirmed: !pending, pending, testFailed: failing });
	return {
		status,
		known: CONFIRMED | (pending ? PENDING : 0) | (failing || says(NOT_NOW) ? FAILED : 0)
	};
}

/** Codes of one module; the error names what in the text is none, or none that such a module keeps. */
function codesIn(text: string): Result<{ codes: ScannedCode[]; known: number }> {
	const found = findCodes(text);
	const list = found.modules.flatMap(({ codes }) => codes);
	if (list.length === 0) return fail('no code is understood in it');
	const byDtc = new Map<string, ScannedCode>();
	let known = 0;
	for (const one of list) {
		const { code } = one;
		if (code.kind !== 'dtc')
			return fail(`${formatSpelling(code)} is kept with what was told, below, and not as a reading yet`);
		const own = statusOf(one);
		known |= own.known;
		if (!tellsOfFault(own.status)) continue;
		byDtc.set(dtcHex(code.code, code.failureType ?? '00'), {
			dtc: dtcHex(code.code, code.failureType ?? '00'),
			status: own.status,
			snapshots: [],
			occurrences: null,
			ageingCycles: null,
			troubles: []
		});
	}
	return ok({ codes: [...byDtc.values()], known });
}

/** The reading as an entry of the thread. It is complete where every described module was asked. */
export function readingTold(
	{ tool, modules, testsRan, text }: ReadingTold,
	type: VehicleType
): Result<PayloadOf<'network-scan'>> {
	const read: ScannedModule[] = [];
	for (const { role, said, codes: written } of modules) {
		const module = type.modules.find((one) => one.role === role);
		if (!module || said === 'not-asked') continue;
		const found = said === 'codes' ? codesIn(written) : ok({ codes: [], known: CONFIRMED | FAILED });
		if (!found.ok) return fail(`${module.name}: ${found.error}.`);
		read.push({
			address: module.address,
			name: module.name,
			answered: said !== 'no-answer',
			trouble: said === 'no-answer' ? 'The other tool got no answer.' : null,
			software: null,
			// What the tool does not say is not known.
			availabilityMask: found.value.known | (testsRan ? NOT_TESTED : 0),
			codes: found.value.codes,
			supported: [],
			exchanges: []
		});
	}
	if (read.length === 0) return fail('Say of at least one module what the tool said.');
	const all = read.length === type.modules.length;
	return ok({
		outcome: all ? 'complete' : 'partial',
		stoppedBecause: all
			? null
			: `Not every module was asked: ${type.modules
					.filter(({ address }) => read.every((one) => one.address !== address))
					.map(({ name }) => name.toLowerCase())
					.join(', ')}.`,
		vin: null,
		keyCycles: null,
		modulesExpected: type.modules.length,
		modules: read,
		otherTool: { tool, text, testsRan }
	});
}

/** Words by which print-outs name modules, by what they are; the first that fits. */
const CALLED: readonly (readonly [role: string, words: RegExp])[] = [
	['steering-angle', /steering\s+(?:wheel\s+)?angle|\bSAS\b/i],
	['power-steering', /\bEPS\b|power\s+steering|steering\s+assist|electric\s+steering/i],
	['park-brake', /park(?:ing)?\s+brake|\bEPB\b/i],
	['trailer-brake', /trailer|\bEBS\b/i],
	['yaw', /\byaw\b|lateral/i],
	['restraint', /restraint|air\s*bag|\bSRS\b/i],
	['cluster', /cluster|instrument|dash/i],
	['gateway', /gateway|\bCAN\s+bus\b|body\s+control|\bBCM\b/i],
	['engine', /engine|motor|\bECM\b|powertrain/i],
	['brake', /\bABS\b|\bES[PC]\b|brake|stability|traction/i]
];

/** Which of a vehicle's modules a print-out most likely means; null where its name says nothing. */
export function roleCalled(
	name: string,
	type: { modules: readonly { role: string; name: string }[] }
): string | null {
	const own = type.modules.find((module) => module.name.toLowerCase() === name.trim().toLowerCase());
	if (own) return own.role;
	const has = (role: string) => type.modules.some((module) => module.role === role);
	return CALLED.find(([role, words]) => has(role) && words.test(name))?.[0] ?? null;
}
