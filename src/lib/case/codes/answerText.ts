import type { CodeBook } from '../../../../library/codes';
import {
	answerByte,
	numberCalled,
	slugOfNumber,
	answerCode,
	meantAsCode,
	type DecoderAnswer,
	type FoundByWords
} from './decoderAnswer';
import { expectation } from './decoded';
import { isCodeNumber, numberOf } from '../../core/codes/codeId';
import { ownNotation } from '../../core/codes/ownNotation';
import { ok } from '../../core/result';
import { parseSpelling, type AnyCode } from '../../core/codes/spelling';

const MOST_CODES = 40;
const MOST_FOUND = 12;
const MOST_CASES = 5;
const LONGEST_NAME = 60;

/** Definitions by code and by words. */
export interface AskedLibrary {
	bookFor(codes: Iterable<string>): Promise<CodeBook>;
	search(
		text: string,
		limit: number
	): Promise<
		{ code: string; failureType: string | null; title: string; packName: string; because: string | null }[]
	>;
}
/** Cases by words, by code and by name. */
export interface AskedCases {
	search(
		text: string,
		limit: number
	): Promise<{ id: string; number: string; vehicle: string; complaint: string; because: string | null }[]>;
	casesWith(
		code: string,
		limit: number
	): Promise<{ id: string; number: string; vehicle: string; proven: boolean; repairs: string[] }[]>;
	/** By number, plate, VIN, or what the vehicle is called. */
	named(
		text: string,
		limit: number
	): Promise<
		{ id: string; number: string; vehicleId: string; vehicle: string; plate: string; signed: boolean }[]
	>;
}
/** Customers by a part of their name, number or e-mail. */
export interface AskedCustomers {
	search(text: string, limit: number): Promise<{ id: string; name: string; phone: string; email: string }[]>;
}

/** Code numbers in a list of codes, for looking up what is known of them. */
export const numbersOf = (codes: AnyCode[]): string[] =>
	codes.flatMap((code) => (code.kind === 'lamp' ? [] : [numberOf(code)]));

/** One code in any spelling, or several in one line, each by itself. The error is that of the whole as one. */
function severalIn(text: string): ReturnType<typeof parseSpelling> {
	const one = parseSpelling(text);
	if (one.ok) return one;
	for (const between of [/[,;|\n]+/, /[\s,;|]+/]) {
		const parts = text.split(between).filter((part) => part.trim() !== '');
		if (parts.length < 2 || parts.length > MOST_CODES) continue;
		const each = parts.map(parseSpelling);
		const codes = each.flatMap((part) => (part.ok ? part.value.codes : []));
		if (each.every(({ ok }) => ok) && codes.length > 0)
			return ok({ what: `${parts.length} codes`, codes, lamps: null });
	}
	return one;
}

/** What the decoder says to any text: the codes in it, or what the library and the shop's cases have by its words. */
export async function answer(
	library: AskedLibrary,
	cases: AskedCases,
	text: string,
	maker: string | null,
	customers: AskedCustomers | null = null
): Promise<DecoderAnswer> {
	const nothing: DecoderAnswer = { byte: null, what: null, codes: [], trouble: null, found: [] };
	if (text.trim() === '') return nothing;
	const byte = answerByte(text);
	if (byte) return { ...nothing, byte };
	const [own, named] = await Promise.all([ownOf(library, cases, text), namedIn(cases, text, customers)]);
	const spelled = severalIn(text);
	if (spelled.ok) {
		const codes = spelled.value.codes.slice(0, MOST_CODES);
		const [book, had] = await Promise.all([library.bookFor(numbersOf(codes)), casesThatHad(cases, codes)]);
		return {
			byte: null,
			what: spelled.value.what === 'a code' ? null : spelled.value.what,
			codes: codes.map((code) => answerCode(code, book, maker)),
			trouble: null,
			found: [...own, ...kinOf(codes, book), ...byGroup(oneEach([...named, ...had]))]
		};
	}
	const found = (await library.search(text, MOST_FOUND)).map(
		({ code, failureType, title, packName, because }): FoundByWords => ({
			group: 'code',
			because,
			href: `/codes/${slugOfNumber(code, failureType)}`,
			text: numberCalled(code, failureType),
			title,
			from: packName
		})
	);
	const said = (await cases.search(text, MOST_CASES)).map(
		({ id, number, vehicle, complaint, because }): FoundByWords => ({
			group: 'case',
			href: `/cases/${id}`,
			text: number,
			title: complaint === '' ? vehicle : `“${complaint}”`,
			from: vehicle,
			because
		})
	);
	const trouble = meantAsCode(text, spelled.error) ? expectation(spelled.error) : null;
	const known = new Set(own.map(({ href }) => href));
	const codes = [...own, ...found.filter(({ href }) => !known.has(href))];
	const all = byGroup(oneEach([...named, ...said]));
	// Whoever types a name or a number means that very case; words are first of all those of a code.
	return {
		...nothing,
		trouble: own.length > 0 || all.length > 0 ? null : trouble,
		found: named.length > 0 ? [...all, ...codes] : [...codes, ...all]
	};
}

/** Cases before vehicles, each as they came. */
const byGroup = (found: FoundByWords[]): FoundByWords[] => [
	...found.filter(({ group }) => group === 'case'),
	...found.filter(({ group }) => group !== 'case')
];

const oneEach = (found: FoundByWords[]): FoundByWords[] =>
	found.filter(({ href }, at) => found.findIndex((one) => one.href === href) === at);

/** Cases that are called so, their vehicles, and customers. A whole answer in hex is nobody's name. */
async function namedIn(
	cases: Pick<AskedCases, 'named'>,
	text: string,
	customers: AskedCustomers | null
): Promise<FoundByWords[]> {
	if (text.length > LONGEST_NAME) return [];
	const [named, people] = await Promise.all([
		cases.named(text, MOST_CASES),
		customers?.search(text, MOST_CASES) ?? []
	]);
	const called = (vehicle: string, plate: string) => [vehicle, plate].filter(Boolean).join(', ');
	return oneEach([
		...named.map(({ id, number, vehicle, plate, signed }): FoundByWords => ({
			group: 'case',
			href: `/cases/${id}`,
			text: number,
			title: called(vehicle, plate),
			from: signed ? 'signed' : 'open',
			because: null
		})),
		...named.map(({ vehicleId, vehicle, plate }): FoundByWords => ({
			group: 'vehicle',
			href: `/vehicles/${vehicleId}`,
			text: plate,
			title: vehicle,
			from: '',
			because: null
		})),
		...people.map(({ id, name, phone, email }): FoundByWords => ({
			group: 'customer',
			href: `/customers/${id}`,
			text: name,
			title: [phone, email].filter(Boolean).join(', '),
			from: '',
			because: null
		}))
	]);
}

/** The newest cases that had one code; of several at once there would be too many. */
async function casesThatHad(cases: Pick<AskedCases, 'casesWith'>, codes: AnyCode[]): Promise<FoundByWords[]> {
	const [number] = numbersOf(codes);
	if (codes.length !== 1 || number === undefined) return [];
	return (await cases.casesWith(number, MOST_CASES)).map(({ id, number: of, vehicle, proven, repairs }) => ({
		group: 'case',
		href: `/cases/${id}`,
		text: of,
		title: vehicle,
		from: proven ? 'proven clear' : 'had it',
		because: repairs.length > 0 ? repairs.join('; ') : null
	}));
}

/** A code in a maker's own notation, where a source describes it or a case of this shop had it: the text says by itself of no code that it is one. */
async function ownOf(
	library: AskedLibrary,
	cases: Pick<AskedCases, 'casesWith'>,
	text: string
): Promise<FoundByWords[]> {
	const written = ownNotation(text.replace(/^\s*=/, ''));
	const number = `=${written}`;
	if (!isCodeNumber(number)) return [];
	const [book, had] = await Promise.all([library.bookFor([number]), cases.casesWith(number, MOST_CASES)]);
	const [source] = book.definitions(number);
	if (!source && had.length === 0) return [];
	const [first] = had;
	return [
		{
			group: 'code',
			href: `/codes/${slugOfNumber(number, null)}`,
			text: written,
			title: source?.title ?? 'A maker’s own code',
			from: source?.pack.name ?? 'not described',
			because: first ? `on ${first.number}, ${first.vehicle}` : null
		}
	];
}

/** Of a code without its suffix: the kinds of failure that sources describe. */
function kinOf(codes: AnyCode[], book: CodeBook): FoundByWords[] {
	const [only] = codes;
	if (codes.length !== 1 || only?.kind !== 'dtc' || only.failureType !== null) return [];
	return book
		.definitions(only.code)
		.filter((d) => d.failureType !== null)
		.slice(0, MOST_FOUND)
		.map((d) => ({
			group: 'code',
			href: `/codes/${d.code}-${d.failureType}`,
			text: `${d.code}-${d.failureType}`,
			title: d.title,
			from: d.pack.name,
			because: null
		}));
}
