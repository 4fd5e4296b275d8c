import { readFileSync } from 'node:fs';
import { parse } from 'svelte/compiler';
import { describe, expect, it } from 'vitest';

/** A list whose key stands twice makes a white page of the whole: a key is the row's number, or an id that is made unique. */

interface Node {
	type?: string;
	index?: string;
	key?: { start: number; end: number };
	expression?: { start: number; end: number };
}
const UNIQUE = /(^|\.)(id|entryId|seq|key)$/;
/** Lists that are written down in the source itself. */
const OUR_OWN = /^([A-Z_]+(\.\w+)?$|\[)/;

function eachBlocks(node: unknown, found: Node[] = []): Node[] {
	if (typeof node !== 'object' || node === null) return found;
	if ((node as Node).type === 'EachBlock') found.push(node as Node);
	for (const value of Object.values(node)) eachBlocks(value, found);
	return found;
}

function wrongKeys(file: string): string[] {
	const source = readFileSync(file, 'utf8');
	const text = (of?: { start: number; end: number }) => (of ? source.slice(of.start, of.end) : '');
	return eachBlocks(parse(source, { modern: true, filename: file }).fragment)
		.filter(({ key, index, expression }) => {
			const by = text(key);
			return by === '' || !(by === index || UNIQUE.test(by) || OUR_OWN.test(text(expression)));
		})
		.map(({ key, expression }) => `${text(expression)} (${text(key)})`);
}

describe('every keyed list', () => {
	const files = Object.keys(import.meta.glob('/src/**/*.svelte')).map((path) => path.slice(1));
	it('is looked at', () => expect(files.length).toBeGreaterThan(80));
	it.each(files)('has a key that cannot stand twice: %s', (file) => expect(wrongKeys(file)).toEqual([]));
});
