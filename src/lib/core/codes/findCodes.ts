import { ownNotation, ownNumberIn } from './ownNotation';
import { parseSpelling, type AnyCode } from './spelling';

/**
 * Finds codes in text of any layout – a scan print-out, an e-mail, a column of codes – and what stands around them:
 * headings that name a module, status bytes and words, lines of a snapshot. Nothing is guessed into the result: a line
 * that fits none of this is ignored and shown as such.
 */
export interface FoundCode {
	code: AnyCode;
	/** As it stands in the text. */
	spelling: string;
	/** From 1. */
	line: number;
	/** What the text itself says of its state: "stored", "active". */
	words: string[];
	/** What the text calls it. */
	told: string;
}

export interface FoundValue {
	name: string;
	value: number;
	unit: string;
	line: number;
	/** Index in the module's codes of the one it follows; null = before any. */
	ofCode: number | null;
}

export interface FoundModule {
	/** Null for what stands before any heading. */
	name: string | null;
	codes: FoundCode[];
	values: FoundValue[];
}

export type SpanKind = 'code' | 'status' | 'heading' | 'value';
export interface Span {
	from: number;
	to: number;
	as: SpanKind;
}

export interface FoundLine {
	text: string;
	/** What was understood, in order; none = ignored. */
	spans: Span[];
}

export interface FoundText {
	modules: FoundModule[];
	/** Everything that stands as the name of a module, also where nothing was found in it. */
	headings: string[];
	lines: FoundLine[];
	codes: number;
	/** Lines with something on them of which nothing was understood. */
	ignored: number;
}

const LONGEST_LINE = 2000;
/** A line that tells of a state says little else. */
const MOST_STATE_WORDS = 6;

/** A code and its suffix; after a blank only if a suffix can stand nowhere else. */
const WRITTEN =
	/(?<![A-Z0-9])[PCBU][0-3][0-9A-F]{3}(?:[0-9A-F]{2}|\s?[-:]\s?[0-9A-F]{2}|\s+[0-9A-F]{2}(?=\s*$|\s+[0-9A-F]{2}(?![0-9A-Z])|\s*[|;,\t(]))?(?:[-/][0-9A-F]{2})?(?![A-Z0-9]|-[A-Z0-9])/gi;
const HEAVY =
	/\bSPN\s*[:=#]?\s*\d{1,6}\s*[,;/|]?\s*FMI\s*[:=#]?\s*\d{1,2}\b(?:\s*[,;/|]?\s*OC\s*[:=#]?\s*\d{1,3}\b)?(?:\s*[,;/|]?\s*CM\s*[:=#]?\s*[01]\b)?/gi;
const SHORT_HEAVY = /(?<![\d/.])\d{2,6}\/\d{1,2}(?![\d/.])/g;
const ANSWER = /(?<![0-9A-F])59[ ]?(?:02|0A|13|15)(?:[ ]?[0-9A-F]{2}){5,}(?![0-9A-F])/gi;
const BYTES = /\b0x[0-9A-F]{4}(?:[0-9A-F]{2}){0,2}\b|(?<![0-9A-Z])[0-9A-F]{6}[/:][0-9A-F]{2}(?![0-9A-Z])/gi;
const LAMP = /\b(?:lamp|flash|blink)(?:\s+code)?\s*:?\s*\d{1,2}(?:\s*-\s*\d{1,2})+\b/gi;
const TALKS_OF_HEAVY = /\b(?:SPN|FMI|J1939|DM1|DM2)\b/i;

const STATUS_BYTE =
	/\b(?:status|state|stat|st)\b\s*(?:byte)?\s*[:=]?\s*(?:0x)?([0-9A-F]{2})(?![0-9A-Z])|\[(?:0x)?([0-9A-F]{2})\]/i;
const STATUS_WORD =
	/\b(?:not present|not active|test failed|present|active|inactive|current|permanent|static|stored|history|historic|passive|sporadic|intermittent|pending|confirmed|previous|memory|maturing|unconfirmed)\b/gi;

const MODULE_WORD =
	/\b(?:ABS|ESP|ESC|EPS|TCS|EBS|TPMS|SRS|ECU|ECM|TCM|BCM|brakes?|stability|traction|steering|restraints?|airbags?|cluster|instruments?|gateway|engine|transmission|gearbox|body|parking|suspension|yaw|tyre pressure|trailer|central electronics|climate|network)\b/i;
const LABELLED_HEADING = /^(?:module|system|control unit|ecu|unit|address)\s*[:#-]\s*(\S.*)$/i;
const FRAMED_HEADING = /^(?:\[(.+)\]|[=*#-]{2,}\s*(.+?)\s*[=*#-]{2,}|#+\s+(.+))$/;
const RULED = /^[=\-_*~]{3,}$/;

const UNITS =
	'km\\/h|kmh|kph|mph|m\\/s|rpm|1\\/min|kPa|MPa|bar|psi|mV|V|mA|A|°C|°F|degC|deg\\/s|°\\/s|deg|°|%|km|mi|miles|ms|s|g|kHz|Hz|Ohm|Ω|min|h';
const LABELLED_VALUE = new RegExp(
	`^([\\p{L}][\\p{L}\\d .,/()_-]{1,60}?)\\s*(?::|=|\\.{2,})\\s*(-?\\d{1,9}(?:[.,]\\d{1,6})?)\\s*(${UNITS})?$`,
	'iu'
);
const PLAIN_VALUE = new RegExp(
	`^([\\p{L}][\\p{L}\\d .,/()_-]{1,60}?)(?:\\s{2,}|\\t|\\s*\\|\\s*)(-?\\d{1,9}(?:[.,]\\d{1,6})?)\\s*(${UNITS})$`,
	'iu'
);
/** A labelled number that is about the print-out, not about the moment of the fault. */
const NOT_A_VALUE =
	/^(?:date|time|page|total|codes?|number of|faults?|invoice|order|tel|phone|fax|vin|version|software)/i;

/** @param ofModule the text is what one module told, a code a line: a number in a maker's own notation may stand in it without a heading */
export function findCodes(text: string, ofModule = false): FoundText {
	const heavy = TALKS_OF_HEAVY.test(text);
	const rows = text.split(/\r\n|\r|\n/);
	const nobody: FoundModule = { name: null, codes: [], values: [] };
	const modules: FoundModule[] = [nobody];
	const lines: FoundLine[] = [];
	let here = nobody;
	for (const [i, row] of rows.entries()) {
		const spans: Span[] = [];
		lines.push({ text: row, spans });
		const line = row.slice(0, LONGEST_LINE);
		if (!isContent(line)) continue;
		const standard = codesIn(line, heavy);
		const found = standard.length > 0 || !(ofModule || here !== nobody) ? standard : ownIn(line, ofModule);
		if (found.length === 0) {
			const heading = ofModule ? null : headingIn(line, rows[i + 1] ?? '');
			if (heading) {
				here = moduleNamed(modules, heading.name);
				spans.push(heading.span);
			} else aroundCode(line, i + 1, here, spans, ofModule ? 0 : MOST_STATE_WORDS);
			continue;
		}
		const before = ofModule ? null : moduleBefore(line.slice(0, found[0]?.span.from));
		const target = before ? moduleNamed(modules, before.name) : here;
		if (before) spans.push(before.span);
		for (const [n, { span, codes }] of found.entries()) {
			const rest = line.slice(span.to, found[n + 1]?.span.from);
			const state = stateIn(rest, span.to);
			spans.push(span, ...state.spans);
			for (const code of codes) {
				target.codes.push({
					code: code.kind === 'dtc' && code.status === null ? { ...code, status: state.status } : code,
					spelling: line.slice(span.from, span.to),
					line: i + 1,
					words: state.words,
					told: state.told
				});
			}
		}
	}
	const kept = modules.filter((module) => module.codes.length > 0 || module.values.length > 0);
	return {
		modules: kept,
		headings: modules.flatMap(({ name }) => name ?? []),
		lines,
		codes: kept.reduce((sum, module) => sum + module.codes.length, 0),
		ignored: lines.filter(({ text: row, spans }) => isContent(row) && spans.length === 0).length
	};
}

/** Neither blank nor a drawn line. */
const isContent = (line: string): boolean => line.trim() !== '' && !RULED.test(line.trim());

interface FoundSpelling {
	span: Span;
	codes: AnyCode[];
}

/** Codes of one line from left to right; where two readings overlap, the one that begins first stands. */
function codesIn(line: string, heavy: boolean): FoundSpelling[] {
	const found: FoundSpelling[] = [];
	for (const pattern of [ANSWER, WRITTEN, HEAVY, LAMP, BYTES, ...(heavy ? [SHORT_HEAVY] : [])]) {
		for (const match of line.matchAll(pattern)) {
			const span: Span = { from: match.index, to: match.index + match[0].length, as: 'code' };
			if (found.some((other) => other.span.from < span.to && span.from < other.span.to)) continue;
			const spelled = parseSpelling(match[0].replaceAll('|', ' '));
			if (spelled.ok && spelled.value.codes.length > 0) found.push({ span, codes: spelled.value.codes });
		}
	}
	return found.sort((a, b) => a.span.from - b.span.from);
}

/** A maker's own code at the head of a line. */
function ownIn(line: string, alone: boolean): FoundSpelling[] {
	const place = ownNumberIn(line, alone);
	if (!place) return [];
	const written = ownNotation(line.slice(place.from, place.to));
	return [{ span: { ...place, as: 'code' }, codes: [{ kind: 'own', written }] }];
}

/** What follows a code on its line: a status byte, words of its state, and what the text calls it. */
function stateIn(rest: string, offset: number) {
	const spans: Span[] = [];
	let status: number | null = null;
	let told = rest;
	const named = STATUS_BYTE.exec(rest) ?? /^[\s|;,\t]+(?:0x)?([0-9A-F]{2})(?![0-9A-Z])/i.exec(rest);
	if (named) {
		status = parseInt(named[1] ?? named[2] ?? '', 16);
		spans.push({ from: offset + named.index, to: offset + named.index + named[0].length, as: 'status' });
		told = told.replace(named[0], ' ');
	}
	const words: string[] = [];
	for (const match of rest.matchAll(STATUS_WORD)) {
		words.push(match[0].toLowerCase());
		spans.push({ from: offset + match.index, to: offset + match.index + match[0].length, as: 'status' });
		told = told.replace(match[0], ' ');
	}
	told = told.replace(/[\s|;,\t()[\]–-]+/g, ' ').trim();
	return { status, words, spans: spans.sort((a, b) => a.from - b.from), told: told.slice(0, 200) };
}

/** Words of a state that stand in a text, and what is left of it without them. */
export const apartFromState = (text: string): { words: string[]; rest: string } => ({
	words: [...text.matchAll(STATUS_WORD)].map(([word]) => word.toLowerCase()),
	rest: text.replace(STATUS_WORD, ' ')
});

/** A line without a code that stands under one: its state, or a value of the snapshot. */
function aroundCode(
	line: string,
	number: number,
	module: FoundModule,
	spans: Span[],
	mostOtherWords: number
): void {
	const start = line.length - line.trimStart().length;
	const bare = line.trim();
	const value = LABELLED_VALUE.exec(bare) ?? PLAIN_VALUE.exec(bare);
	if (value && !NOT_A_VALUE.test(bare)) {
		module.values.push({
			name: (value[1] ?? '').replace(/[\s.]+$/, ''),
			value: Number((value[2] ?? '').replace(',', '.')),
			unit: value[3] ?? '',
			line: number,
			ofCode: module.codes.length > 0 ? module.codes.length - 1 : null
		});
		spans.push({ from: start, to: start + bare.length, as: 'value' });
		return;
	}
	const last = module.codes.at(-1);
	// Only the lines right under a code speak of it.
	if (!last || number - last.line > 3) return;
	const state = stateIn(bare, start);
	const otherWords = state.told === '' ? 0 : state.told.split(' ').length;
	if (state.spans.length === 0 || otherWords > mostOtherWords) return;
	last.words.push(...state.words);
	if (last.code.kind === 'dtc' && last.code.status === null && state.status !== null)
		last.code = { ...last.code, status: state.status };
	spans.push(...state.spans);
}

function headingIn(line: string, next: string): { name: string; span: Span } | null {
	const bare = line.trim();
	const from = line.length - line.trimStart().length;
	const span: Span = { from, to: from + bare.length, as: 'heading' };
	const labelled = LABELLED_HEADING.exec(bare) ?? FRAMED_HEADING.exec(bare);
	const name = (labelled?.slice(1).find((part) => part !== undefined) ?? bare)
		.replace(/\s*[:\-–]\s*$/, '')
		.replace(/\s*[(,–-]?\s*\d+\s+(?:codes?|faults?|DTCs?)\b.*$/i, '')
		.trim();
	if (name === '' || name.length > 60) return null;
	if (labelled) return { name, span };
	if (LABELLED_VALUE.test(bare) || PLAIN_VALUE.test(bare)) return null;
	const few = name.split(/\s+/).length <= 6;
	const standsOut = /:$/.test(bare) || RULED.test(next.trim()) || /^[^a-z]{3,}$/.test(name);
	const sentence = /[.!?]$/.test(bare) || /,/.test(bare);
	return few && !sentence && MODULE_WORD.test(name) && (standsOut || few) ? { name, span } : null;
}

/** A module named in front of a code on the same line, as in a table. */
function moduleBefore(text: string): { name: string; span: Span } | null {
	const bare = text.replace(/[\s|;,:\t–-]+$/, '').replace(/^[\s|*•]*(?:\d+[.):]\s+)?/, '');
	if (bare === '' || bare.length > 40 || bare.split(/\s+/).length > 4 || !MODULE_WORD.test(bare)) return null;
	const from = text.indexOf(bare);
	return { name: bare, span: { from, to: from + bare.length, as: 'heading' } };
}

function moduleNamed(modules: FoundModule[], name: string): FoundModule {
	const known = modules.find((module) => module.name?.toLowerCase() === name.toLowerCase());
	if (known) return known;
	const module: FoundModule = { name, codes: [], values: [] };
	modules.push(module);
	return module;
}
