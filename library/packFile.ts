import { findNodeAtLocation, parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import Papa from 'papaparse';
import { z } from 'zod';
import { fail, ok, type Result } from '../src/lib/core/result';
import { CodePack, definitionKey, PACK_FORMAT, type CodeDefinition } from './codePack';

/** Why a pack is refused, and where. A pack is taken whole or not at all. */
export interface PackError {
	/** From 1. */
	line: number;
	reason: string;
}

export const MOST_PACK_BYTES = 50_000_000;

/** JSON Schema of the pack format, as published for those who write packs. */
export const packJsonSchema = () => ({
	$schema: 'https://json-schema.org/draft/2020-12/schema',
	title: 'Code pack',
	description: 'What one source says about fault codes.',
	...z.toJSONSchema(CodePack, { io: 'input' })
});

/** A pack as JSON, tabs and all: the form that {@link parsePackFile} reads back. */
export const packAsJson = (pack: CodePack): string => `${JSON.stringify(pack, null, '\t')}\n`;

const COLUMNS = [
	'pack_id',
	'pack_name',
	'source',
	'date',
	'maker',
	'code',
	'failure_type',
	'title',
	'group',
	'component',
	'corner',
	'lamps',
	'driving',
	'causes',
	'notes',
	'sender',
	'set_conditions',
	'test_conditions'
] as const;
type Row = Record<(typeof COLUMNS)[number], string>;
const LIST = ';';

/** A pack as a table: every row names the pack it belongs to, lists are parted by `;`, conditions are JSON. */
export function packAsCsv(pack: CodePack): string {
	const rows = pack.definitions.map((d): Row => ({
		pack_id: pack.id,
		pack_name: pack.name,
		source: pack.source,
		date: pack.date,
		maker: pack.maker ?? '',
		code: d.code,
		failure_type: d.failureType ?? '',
		title: d.title,
		group: d.group,
		component: d.component ?? '',
		corner: d.corner ?? '',
		lamps: d.lamps.join(`${LIST} `),
		driving: d.driving,
		causes: d.causes.map((cause) => cause.replaceAll(LIST, ',')).join(`${LIST} `),
		notes: d.notes,
		sender: d.sender ?? '',
		set_conditions: d.setConditions ? JSON.stringify(d.setConditions) : '',
		test_conditions: d.testConditions ? JSON.stringify(d.testConditions) : ''
	}));
	return Papa.unparse(rows, { columns: [...COLUMNS], newline: '\n', escapeFormulae: true }) + '\n';
}

/** A pack file, JSON or CSV by its first sign. The first thing wrong with it is named with its line. */
export function parsePackFile(text: string): Result<CodePack, PackError> {
	const bare = text.replace(/^\uFEFF/, '');
	if (bare.trim() === '') return fail({ line: 1, reason: 'the file is empty' });
	if (bare.includes('\0')) return fail({ line: 1, reason: 'this is no text but a binary file' });
	const parsed = /^\s*[{[]/.test(bare) ? parseJson(bare) : parseCsv(bare);
	if (!parsed.ok) return parsed;
	const { pack, lineOf } = parsed.value;
	const seen = new Map<string, number>();
	for (const [i, definition] of pack.definitions.entries()) {
		const key = definitionKey(definition);
		const before = seen.get(key);
		if (before !== undefined)
			return fail({ line: lineOf(i), reason: `${key} is defined twice, first in line ${lineOf(before)}` });
		seen.set(key, i);
	}
	return ok(pack);
}

interface Parsed {
	pack: CodePack;
	/** Line of a definition by its place. */
	lineOf: (index: number) => number;
}

const lineAt = (text: string, offset: number): number => text.slice(0, offset).split('\n').length;

function parseJson(text: string): Result<Parsed, PackError> {
	let raw: unknown;
	try {
		raw = JSON.parse(text);
	} catch {
		const errors: ParseError[] = [];
		parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
		const [broken] = errors;
		const reason = broken
			? printParseErrorCode(broken.error)
					.replace(/(?<=[a-z])(?=[A-Z])/g, ' ')
					.toLowerCase()
			: 'it ends too soon';
		return fail({ line: lineAt(text, broken?.offset ?? text.length), reason: `not valid JSON: ${reason}` });
	}
	// Places are only looked up when something is to be told of one: most packs are good, and some are large.
	const line = (path: PropertyKey[]) => {
		const tree = parseTree(text);
		return tree ? lineAt(text, nearest(tree, path).offset) : 1;
	};
	const checked = CodePack.safeParse(raw);
	if (!checked.success) {
		const issue = checked.error.issues[0];
		const path = issue?.path ?? [];
		return fail({
			line: line(path),
			reason: `${path.map(String).join('.') || 'the file'}: ${issue?.message}`
		});
	}
	return ok({ pack: checked.data, lineOf: (index) => line(['definitions', index]) });
}

/** The part of the file that a path names, or the innermost one that is there. */
function nearest(tree: Node, path: PropertyKey[]): Node {
	for (let length = path.length; length > 0; length--) {
		const node = findNodeAtLocation(tree, path.slice(0, length) as (string | number)[]);
		if (node) return node;
	}
	return tree;
}

function parseCsv(text: string): Result<Parsed, PackError> {
	const {
		data: rows,
		errors,
		meta
	} = Papa.parse<Row>(text, {
		header: true,
		skipEmptyLines: 'greedy',
		delimitersToGuess: [',', ';', '\t']
	});
	const lineOf = (index: number) => lineOfRow(text, meta.delimiter, index);
	const missing = COLUMNS.filter(
		(column) =>
			['pack_id', 'pack_name', 'source', 'date', 'code', 'title', 'group'].includes(column) &&
			!meta.fields?.includes(column)
	);
	if (missing.length > 0) return fail({ line: 1, reason: `missing column ${missing.join(', ')}` });
	const unknown = meta.fields?.find((field) => !(COLUMNS as readonly string[]).includes(field));
	if (unknown !== undefined) return fail({ line: 1, reason: `unknown column "${unknown}"` });
	const [broken] = errors;
	if (broken) return fail({ line: lineOf(broken.row ?? 0), reason: broken.message });
	const [first] = rows;
	if (!first) return fail({ line: 2, reason: 'there is no row below the column names' });
	const definitions: unknown[] = [];
	for (const [i, row] of rows.entries()) {
		const strays = (['pack_id', 'pack_name', 'source', 'date', 'maker'] as const).find(
			(c) => (row[c] ?? '') !== (first[c] ?? '')
		);
		if (strays)
			return fail({ line: lineOf(i), reason: `${strays} differs from the first row: one file is one pack` });
		const definition = rowToDefinition(row);
		if (!definition.ok) return fail({ line: lineOf(i), reason: definition.error });
		definitions.push(definition.value);
	}
	const checked = CodePack.safeParse({
		format: PACK_FORMAT,
		version: 1,
		id: first.pack_id,
		name: first.pack_name,
		source: first.source,
		date: first.date,
		maker: first.maker || null,
		definitions
	});
	if (!checked.success) {
		const issue = checked.error.issues[0];
		const [top, index, ...rest] = issue?.path ?? [];
		const inRow = top === 'definitions' && typeof index === 'number';
		const column = inRow ? rest.map(String).join('.') : String(top ?? 'the file');
		return fail({
			line: lineOf(inRow ? index : 0),
			reason: `${column}: ${issue?.message}`
		});
	}
	return ok({ pack: checked.data, lineOf });
}

/**
 * Line on which a row of a table begins, rows without anything on them not counted. A field in quotes may run over several
 * lines, so the table is walked through; only done when something is to be told of a row.
 */
function lineOfRow(text: string, delimiter: string, index: number): number {
	let cursor = 0;
	let line = 2;
	let row = 0;
	let found = line;
	Papa.parse<Row>(text, {
		header: true,
		delimiter,
		step: ({ data, meta }, parser) => {
			const passed = text.slice(cursor, meta.cursor).split('\n').length - 1;
			const began = line;
			// The first step has passed the column names too.
			line += cursor === 0 ? passed - 1 : passed;
			cursor = meta.cursor;
			if (Object.values(data).every((value) => String(value ?? '').trim() === '')) return;
			found = began;
			if (row++ === index) parser.abort();
		}
	});
	return found;
}

function rowToDefinition(row: Row): Result<Record<keyof CodeDefinition, unknown>> {
	// Tables guard cells that a spreadsheet would compute with a leading apostrophe.
	const cell = (name: keyof Row) => (row[name] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
	const list = (name: keyof Row) =>
		cell(name)
			.split(LIST)
			.map((part) => part.trim())
			.filter((part) => part !== '');
	const conditions: Record<string, unknown> = {};
	for (const name of ['set_conditions', 'test_conditions'] as const) {
		try {
			conditions[name] = cell(name) === '' ? null : JSON.parse(cell(name));
		} catch {
			return fail(`${name}: not valid JSON`);
		}
	}
	return ok({
		code: cell('code').toUpperCase(),
		failureType: cell('failure_type').toUpperCase() || null,
		title: cell('title'),
		group: cell('group'),
		component: cell('component') || null,
		corner: cell('corner') || null,
		lamps: list('lamps'),
		driving: cell('driving') || 'unaffected',
		causes: list('causes'),
		notes: cell('notes'),
		sender: cell('sender') || null,
		setConditions: conditions.set_conditions,
		testConditions: conditions.test_conditions
	});
}
