import { ENTRY_KINDS, featureOf } from './registry';

const WRITERS = {
	hand: 'anybody who may write, also through the API',
	work: 'the server, of work it did',
	rule: 'its own page, by its own rule'
};

/** Every kind of entry as the published formats list it, from what the registry knows. */
export function kindsTable(): string {
	const rows = ENTRY_KINDS.map((kind) => {
		const { about, writer, group } = featureOf(kind);
		return [`\`${kind}\``, about, WRITERS[writer], group];
	});
	const all = [['kind', 'tells', 'written by', 'found under'], ...rows];
	const widths = [0, 1, 2, 3].map((at) => Math.max(...all.map((row) => (row[at] ?? '').length)));
	const written = (row: string[]) => `| ${row.map((cell, at) => cell.padEnd(widths[at] ?? 0)).join(' | ')} |`;
	const [head = [], ...body] = all;
	return [
		written(head),
		`| ${widths.map((width) => '-'.repeat(width)).join(' | ')} |`,
		...body.map(written)
	].join('\n');
}

const MARKS = ['<!-- kinds of entries: made by npm run formats -->', '<!-- end of kinds -->'] as const;

/** A page of the docs with its list of kinds made anew. Throws where the page has no place for it. */
export function withKinds(page: string): string {
	const [from, to] = MARKS.map((mark) => page.indexOf(mark));
	if (from === undefined || to === undefined || from < 0 || to < from)
		throw new Error(`the page has no place between "${MARKS[0]}" and "${MARKS[1]}"`);
	return `${page.slice(0, from + MARKS[0].length)}\n\n${kindsTable()}\n\n${page.slice(to)}`;
}
