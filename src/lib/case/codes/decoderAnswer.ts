import type { CodeBook } from '../../../../library/codes';
import { failureType } from '../../../../library/failureTypes';
import type { TextError } from '../../core/bytes';
import { formatSpelling, parseSpelling, type AnyCode } from '../../core/codes/spelling';
import { codeOfId } from '../../core/codes/codeId';
import { statusPhrase } from '../../core/codes/status';
import { decodeCode, kindToldBy } from './decoded';

/** A code as the decoder shows it: what it is, and what its suffix and status say. */
export interface AnsweredCode {
	/** How the address of its page ends. */
	slug: string;
	/** `C0045-13`. */
	text: string;
	title: string;
	failureType: string | null;
	meaning: string | null;
	checkFirst: string | null;
	state: string | null;
}

export interface FoundByWords {
	group: 'code' | 'case' | 'vehicle' | 'customer';
	/** Where it opens. */
	href: string;
	text: string;
	title: string;
	from: string;
	/** Why it was found, where its title does not show it. */
	because: string | null;
}

/** What the decoder says to a text. */
export interface DecoderAnswer {
	/** What a lone byte says, as a suffix and as a status. */
	byte: { text: string; suffix: string; meaning: string; checkFirst: string; status: string } | null;
	/** What the text is, when it is more than one code. */
	what: string | null;
	codes: AnsweredCode[];
	/** Why it is no code, when it looks as if it was meant to be one. */
	trouble: string | null;
	found: FoundByWords[];
	/** It was answered without the server: by the shipped sources alone. */
	alone?: true;
}

/** How the address of a code's page ends, fit for an address. `C0045-13` with status 2F → `C0045-13?status=2F`; `SPN 789 FMI 5` → `spn-789-fmi-5`. */
export function slugOf(code: AnyCode): string {
	if (code.kind === 'dtc') {
		const [plain = '', status] = formatSpelling(code).split('/');
		return status === undefined ? plain : `${plain}?status=${status}`;
	}
	if (code.kind === 'own') return encodeURIComponent(`=${code.written}`);
	return formatSpelling(code.kind === 'j1939' ? { ...code, occurrences: null } : code)
		.toLowerCase()
		.replaceAll(' ', '-');
}

/** No failure mode in particular: "the condition is there". */
const ANY_FAILURE_MODE = 31;

/** How the address of the page ends that tells what sources say under a number, of one kind of failure or of all. */
export function slugOfNumber(number: string, failureType: string | null): string {
	if (number.startsWith('=')) return encodeURIComponent(number);
	if (number.startsWith('SPN')) return slugOf(codeOfId(`${number} FMI ${ANY_FAILURE_MODE}`));
	return failureType === null ? number : `${number}-${failureType}`;
}

/** How people call what sources describe under a number. */
export const numberCalled = (number: string, failureType: string | null): string =>
	number.startsWith('=') ? number.slice(1) : failureType === null ? number : `${number}-${failureType}`;

/** The inverse of {@link slugOf}, without the status. */
export function codeOfSlug(slug: string): AnyCode | null {
	for (const text of [slug, slug.replaceAll('-', ' ')]) {
		const spelled = parseSpelling(text);
		const [code] = spelled.ok ? spelled.value.codes : [];
		if (spelled.ok && code && spelled.value.codes.length === 1) return code;
	}
	return null;
}

const NOT_DESCRIBED = 'Not described by any source here';

export function answerCode(code: AnyCode, book: CodeBook, maker: string | null): AnsweredCode {
	const decoded = decodeCode(code, '', book, maker);
	const kind = kindToldBy(code, book, maker);
	return {
		slug: slugOf(code),
		text: code.kind === 'dtc' ? formatSpelling({ ...code, status: null }) : decoded.code,
		title:
			decoded.title ??
			(code.kind === 'lamp'
				? 'Lamp code: its meaning depends on the vehicle'
				: decoded.definedBy === 'maker'
					? 'The maker’s own code: its meaning depends on the vehicle'
					: NOT_DESCRIBED),
		failureType: kind?.text ?? null,
		meaning: kind?.meaning ?? null,
		checkFirst: kind?.checkFirst ?? null,
		state: code.kind === 'dtc' && code.status !== null ? statusPhrase(code.status) : null
	};
}

/** Two hex digits alone, with or without a dash: the end of a code that somebody wonders about. */
export function answerByte(text: string): DecoderAnswer['byte'] {
	const byte = /^\s*(?:suffix\s*|-|0x)?([0-9A-F]{2})\s*$/i.exec(text)?.[1]?.toUpperCase();
	if (byte === undefined) return null;
	const kind = failureType(byte);
	return {
		text: byte,
		suffix: kind.text,
		meaning: kind.meaning,
		checkFirst: kind.checkFirst,
		status: statusPhrase(parseInt(byte, 16))
	};
}

/** Whether a text was meant as a code: then it deserves to be told why it is none, and is not looked up as words. */
export const meantAsCode = (text: string, { at }: TextError): boolean =>
	/^\s*(?:[PCBU]\d|0x|SPN\b|DM\d|\d|[0-9A-F]{2}[\s:]|lamp\s*\d)/i.test(text) && at > 0;
