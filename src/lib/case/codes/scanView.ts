import { codeKey } from '../../core/codes/codeKey';
import { identifiers } from '../../../../library';
import { shippedBook, type CodeBook } from '../../../../library/codes';
import { hexByte } from '../../core/bytes';
import { codeNumber, codeOfId, suffixOf, type CodeId } from '../../core/codes/codeId';
import { codeSystem, definedBy } from '../../core/codes/dtc';
import { decodeStatus, STATUS_BITS, STATUS_WORDS, statusPhrase } from '../../core/codes/status';
import { decodeIdentifier } from '../../core/uds/identifierValue';
import { describeCode } from './codeWords';
import { slugOf } from './decoderAnswer';
import { upperFirst } from '../words';
import type { EntryOf } from '../entries/entry';
import type { ScannedCode, ScannedModule } from '../entries/network-scan/payload';

/** A snapshot's value in words: name, value with unit, and the bytes it came from. */
export interface NamedValue {
	id: string;
	name: string;
	text: string;
	raw: string;
}

export interface CodeView {
	dtc: string;
	text: string;
	title: string;
	/** Nobody has said yet what it means. */
	meaningless: boolean;
	failureType: string;
	/** What to look at first for this kind of failure; null where none is told. */
	checkFirst: string | null;
	/** Who defined the code, and which part of the vehicle its letter names. */
	origin: string;
	/** As it goes over the line; null where it has no bytes. */
	bytes: string | null;
	/** How the address of its page ends. */
	slug: string;
	/** What sources describe it under. */
	number: string;
	phrase: string;
	/** A test of ours since the reading before sets it. */
	madeByUs: boolean;
	statusByte: string;
	bits: { words: string; set: boolean }[];
	snapshots: { record: number; title: string; values: NamedValue[] }[];
	counters: string | null;
	troubles: string[];
}

export interface ModuleView {
	address: string;
	name: string;
	answered: boolean;
	trouble: string | null;
	software: string | null;
	codes: CodeView[];
	exchanges: ScannedModule['exchanges'];
}

/** One raw value → its name and what it says. An identifier nobody described keeps its bytes. */
export function nameValue(id: string, raw: string): NamedValue {
	const rule = identifiers.get(id);
	if (!rule) return { id, name: `identifier ${id}`, text: raw, raw };
	const value = decodeIdentifier(rule, raw);
	const text =
		value.kind === 'not-available'
			? 'not available'
			: value.kind === 'wrong-length'
				? `${raw} (${value.expectedBytes} bytes expected)`
				: value.text;
	return { id, name: rule.name, text, raw };
}

const DEFINED_BY = {
	standard: 'a standard code',
	maker: 'the maker’s own code',
	reserved: 'a reserved number'
} as const;

/** Who defined a code, and which part of the vehicle its letter names. */
function originOf(id: CodeId): string {
	const code = codeOfId(id);
	switch (code.kind) {
		case 'dtc':
			return `${DEFINED_BY[definedBy(code.code)]}, ${codeSystem(code.code)}`;
		case 'j1939':
			return 'a heavy vehicle’s code';
		case 'own':
			return 'in the maker’s own notation';
	}
}

function viewCode(code: ScannedCode, book: CodeBook, maker: string | null, madeByUs: boolean): CodeView {
	const { text, title, called, failureType, checkFirst } = describeCode(
		code.dtc,
		book,
		maker,
		code.told ?? null
	);
	const status = decodeStatus(code.status);
	const several = code.snapshots.length > 1;
	return {
		dtc: code.dtc,
		text,
		title: called,
		meaningless: title === null,
		failureType: upperFirst(failureType),
		checkFirst,
		origin: originOf(code.dtc),
		bytes: suffixOf(code.dtc) === null ? null : code.dtc.replace(/..(?=.)/g, '$& '),
		slug: slugOf(codeOfId(code.dtc)),
		number: codeNumber(code.dtc),
		phrase: statusPhrase(code.status),
		madeByUs,
		statusByte: hexByte(code.status),
		bits: STATUS_BITS.map((bit) => ({ words: STATUS_WORDS[bit], set: status[bit] })),
		snapshots: code.snapshots.map(({ record, values }, i) => ({
			record,
			title: several ? (i === 0 ? 'the first time' : 'the latest time') : 'when it was set',
			values: values.map((v) => nameValue(v.id, v.raw))
		})),
		counters:
			code.occurrences === null
				? null
				: code.occurrences === 1
					? 'set once'
					: `set ${code.occurrences} times`,
		troubles: code.troubles
	};
}

/** How much a module has to say: silence weighs more than any code. */
const findings = (module: ScannedModule) => (module.answered ? module.codes.length : 100);

/** A scan as a technician reads it: modules with findings first, otherwise in the order asked. */
export const viewScan = (
	scan: EntryOf<'network-scan'>,
	book: CodeBook = shippedBook,
	maker: string | null = null,
	/** Codes that our own tests set, as address/code. */
	madeByUs: ReadonlySet<string> = new Set()
): ModuleView[] =>
	[...scan.payload.modules]
		.sort((a, b) => findings(b) - findings(a))
		.map((module) => ({
			address: module.address,
			name: module.name,
			answered: module.answered,
			trouble: module.trouble,
			software: module.software,
			codes: module.codes.map((code) =>
				viewCode(code, book, maker, madeByUs.has(codeKey({ address: module.address, dtc: code.dtc })))
			),
			exchanges: module.exchanges
		}));
