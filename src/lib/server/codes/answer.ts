import type { CodeBook } from '../../../../library/codes';
import {
	answerByte,
	answerCode,
	meantAsCode,
	type DecoderAnswer,
	type FoundByWords
} from '../../case/codes/decoderAnswer';
import { expectation } from '../../case/codes/decoded';
import { parseSpelling, type AnyCode } from '../../core/codes/spelling';
import type { Cases } from '../db/cases';
import type { CodeLibrary } from '../db/codeLibrary';

const MOST_CODES = 40;
const MOST_FOUND = 12;
const MOST_CASES = 5;

/** Code numbers in a list of codes, for looking up what is known of them. */
export const numbersOf = (codes: AnyCode[]): string[] =>
	codes.flatMap((code) => (code.kind === 'dtc' ? [code.code] : []));

/** What the decoder says to any text: the codes in it, or what the library and the shop's cases have by its words. */
export async function answer(
	library: CodeLibrary,
	cases: Pick<Cases, 'search'>,
	text: string,
	maker: string | null
): Promise<DecoderAnswer> {
	const nothing: DecoderAnswer = { byte: null, what: null, codes: [], trouble: null, found: [] };
	if (text.trim() === '') return nothing;
	const byte = answerByte(text);
	if (byte) return { ...nothing, byte };
	const spelled = parseSpelling(text);
	if (spelled.ok) {
		const codes = spelled.value.codes.slice(0, MOST_CODES);
		const book = await library.bookFor(numbersOf(codes));
		return {
			byte: null,
			what: spelled.value.what === 'a code' ? null : spelled.value.what,
			codes: codes.map((code) => answerCode(code, book, maker)),
			trouble: null,
			found: kinOf(codes, book)
		};
	}
	const found = (await library.search(text, MOST_FOUND)).map(
		({ code, failureType, title, packName, because }): FoundByWords => ({
			because,
			href: `/codes/${failureType ? `${code}-${failureType}` : code}`,
			text: failureType ? `${code}-${failureType}` : code,
			title,
			from: packName
		})
	);
	const said = (await cases.search(text, MOST_CASES)).map(
		({ id, number, vehicle, complaint, because }): FoundByWords => ({
			href: `/cases/${id}`,
			text: number,
			title: complaint === '' ? vehicle : `“${complaint}”`,
			from: vehicle,
			because
		})
	);
	const trouble = meantAsCode(text, spelled.error) ? expectation(spelled.error) : null;
	return { ...nothing, trouble, found: [...found, ...said] };
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
			href: `/codes/${d.code}-${d.failureType}`,
			text: `${d.code}-${d.failureType}`,
			title: d.title,
			from: d.pack.name,
			because: null
		}));
}
