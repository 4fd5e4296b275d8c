import type { VehicleType } from '../../../../library';
import { rolesCalled } from '../../../../library/vehicle/roleOfModule';
import type { ModuleRole } from '../../../../library/vehicle/vehicleType';
import { codeId, type CodeId, type ModuleCode } from '../../core/codes/codeId';
import { apartFromState, findCodes } from '../../core/codes/findCodes';
import { LONGEST_OWN, ownNotation } from '../../core/codes/ownNotation';
import { encodeStatus, decodeStatus, tellsOfFault } from '../../core/codes/status';
import { fail, ok, type Result } from '../../core/result';
import type { PayloadOf } from '../entries/entry';
import { MOST } from '../entries/shapes';
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
	/** Pictures of it. */
	photos: NonNullable<NonNullable<PayloadOf<'network-scan'>['otherTool']>['photos']>;
}

const [FAILED, PENDING, CONFIRMED, NOT_TESTED] = [0x01, 0x04, 0x08, 0x10] as const;
const ALL_BITS = 0xff;
const FAILING_NOW = /^(?:active|present|current|permanent|static|test failed)$/i;
const NOT_NOW =
	/^(?:not present|not active|inactive|history|historic|passive|sporadic|intermittent|previous|memory)$/i;
const ONLY_PENDING = /^(?:pending|maturing|unconfirmed)$/i;

/** A code as somebody wrote it down at a module. */
export interface WrittenCode {
	code: ModuleCode;
	/** What the tool says of its state. */
	words: string[];
	/** What it prints beside it. */
	told: string;
}

/** What parts a code in words from what is said of its state. */
const AROUND = /^[\s=,;:|()[\]–-]+|[\s,;:|()[\]–-]+$/g;
const SAYS_SOMETHING = /[\p{L}\p{N}]/u;

/**
 * The codes in what was written down at one module. A line that is no code in any standard's spelling is one in the maker's own: by its
 * number, or as its words stand.
 */
export function writtenCodes(text: string): WrittenCode[] {
	const { modules, lines } = findCodes(text, true);
	const atLine = new Map<number, WrittenCode[]>();
	for (const { code, words, told, line } of modules.flatMap(({ codes }) => codes))
		if (code.kind !== 'lamp')
			atLine.set(line, [...(atLine.get(line) ?? []), { code, words: [...words], told }]);
	const all: WrittenCode[] = [];
	for (const [i, line] of lines.entries()) {
		const here = atLine.get(i + 1);
		if (here) all.push(...here);
		// What was understood there is the state of the code above, or a value of its moment.
		if (here || line.spans.length > 0) continue;
		const { words, rest } = apartFromState(line.text);
		const written = ownNotation(rest.replace(AROUND, '').slice(0, LONGEST_OWN));
		if (SAYS_SOMETHING.test(written)) all.push({ code: { kind: 'own', written }, words, told: '' });
		else all.at(-1)?.words.push(...words);
	}
	return all;
}

/** Status byte by the tool's own words, and the bits that those words speak of. */
function statusOf({ code, words }: WrittenCode): { status: number; known: number } {
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
	const list = writtenCodes(text);
	if (list.length === 0) return fail('no code is understood in it');
	if (list.length > MOST.codes) return fail(`it has ${list.length} codes, more than ${MOST.codes}`);
	const byId = new Map<CodeId, ScannedCode>();
	let known = 0;
	for (const one of list) {
		const { code, told } = one;
		const own = statusOf(one);
		known |= own.known;
		if (!tellsOfFault(own.status)) continue;
		const id = codeId(code);
		byId.set(id, {
			dtc: id,
			...(told === '' ? {} : { told }),
			status: own.status,
			snapshots: [],
			occurrences: code.kind === 'j1939' ? code.occurrences : null,
			ageingCycles: null,
			troubles: []
		});
	}
	return ok({ codes: [...byId.values()], known });
}

/** The reading as an entry of the thread. It is complete where every described module was asked. */
export function readingTold(
	{ tool, modules, testsRan, text, photos }: ReadingTold,
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
		otherTool: { tool, text, testsRan, ...(photos.length > 0 ? { photos } : {}) }
	});
}

/** Which of a vehicle's modules a print-out most likely means; null where its name says nothing. */
export function roleCalled(
	name: string,
	type: { modules: readonly { role: ModuleRole; name: string }[] }
): ModuleRole | null {
	const own = type.modules.find((module) => module.name.toLowerCase() === name.trim().toLowerCase());
	if (own) return own.role;
	const has = (role: ModuleRole) => type.modules.some((module) => module.role === role);
	const [called] = rolesCalled(name);
	// A trailer has one module for its brakes, whatever it is called.
	const role = called === 'brake' && !has('brake') ? 'trailer-brake' : called;
	return role !== undefined && has(role) ? role : null;
}

/** Modules that a print-out names and the vehicle is not known to have, each with the name that it has there. */
export function undescribedModules(
	headings: readonly string[],
	type: { modules: readonly { role: ModuleRole; name: string }[] }
): { role: ModuleRole; called: string }[] {
	const found = new Map<ModuleRole, string>();
	for (const called of headings) {
		const [role] = roleCalled(called, type) === null ? rolesCalled(called) : [];
		if (role && !found.has(role)) found.set(role, called);
	}
	return [...found].map(([role, called]) => ({ role, called }));
}
