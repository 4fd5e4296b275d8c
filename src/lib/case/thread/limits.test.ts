import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { EntryDraft, PAYLOADS, type EntryKind } from '../entries/entry';

type Check = { _zod: { def: { check?: string; pattern?: RegExp } } };
type Inner = z.core.$ZodType & {
	_zod: { def: { type: string; checks?: Check[] } & Record<string, unknown> };
};

/** Longest text that a pattern lets through, where it says so by itself. */
const boundsLength = (pattern: RegExp) =>
	pattern.source.startsWith('^') && !/[*+]|,\}/.test(pattern.source.replaceAll('\\+', ''));

/** Places of a schema at which nothing says how much may come. */
function unlimited(schema: z.core.$ZodType, path: string): string[] {
	const { def } = (schema as Inner)._zod;
	const checks = (def.checks ?? []).map(({ _zod }: Check): Check['_zod']['def'] => _zod.def);
	const inner = (name: string, at = path) => unlimited(def[name] as Inner, at);
	const limited = checks.some(
		({ check, pattern }) =>
			check === 'max_length' ||
			check === 'length_equals' ||
			check === 'custom' ||
			(pattern && boundsLength(pattern))
	);
	switch (def.type) {
		case 'string':
			return limited || def.format === 'datetime' ? [] : [path];
		case 'array':
			return [...(limited ? [] : [`${path}[]`]), ...inner('element', `${path}[]`)];
		case 'record':
			return [
				...(limited ? [] : [`${path}{}`]),
				...inner('keyType', `${path}{key}`),
				...inner('valueType', `${path}{}`)
			];
		case 'object':
			return Object.entries(def.shape as Record<string, Inner>).flatMap(([key, of]) =>
				unlimited(of, `${path}.${key}`)
			);
		case 'union':
			return (def.options as Inner[]).flatMap((of) => unlimited(of, path));
		case 'nullable':
		case 'optional':
		case 'default':
			return inner('innerType');
		case 'tuple':
			return (def.items as Inner[]).flatMap((of, i) => unlimited(of, `${path}.${i}`));
		default:
			return [];
	}
}

describe('what an entry may hold', () => {
	it.each(Object.keys(PAYLOADS) as EntryKind[])('has a limit at every text, list and table: %s', (kind) => {
		expect(unlimited(PAYLOADS[kind], kind)).toEqual([]);
	});

	it('200,000 tyres are refused at once', () => {
		const tyre = { position: 'rear-left', size: '205/55R16', brand: '', treadMm: 1, pressureKpa: 1 };
		const began = performance.now();
		const parsed = EntryDraft.safeParse({
			id: '01JE0000000000000000000001',
			caseId: '01JE0000000000000000000000',
			kind: 'tyres-fitted',
			version: 1,
			observedAt: '2026-11-24T09:00:00.000Z',
			supersedes: null,
			payload: { tyres: Array.from({ length: 200_000 }, () => tyre) }
		});
		expect(parsed.success).toBe(false);
		expect(performance.now() - began).toBeLessThan(5_000);
	});
});
