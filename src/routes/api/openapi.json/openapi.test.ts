import { describe, expect, it } from 'vitest';
import { ENTRY_KINDS } from '$lib/case/entries/entry';
import type { ApiRoute } from '$lib/server/api/apiRoute';
import { GET } from './+server';

const routes = import.meta.glob<Record<string, unknown>>('/src/routes/**/+server.ts', { eager: true });
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];

interface Document {
	openapi: string;
	paths: Record<string, Record<string, { requestBody?: { content: Record<string, { schema: unknown }> } }>>;
}
const described = async (): Promise<Document> =>
	(await GET({ locals: { services: { origin: 'http://127.0.0.1:1' } } } as never)).json();

describe('the HTTP interface', () => {
	it('says of every route what each of its methods takes and gives, and of no other', () => {
		expect(Object.keys(routes).length).toBeGreaterThan(20);
		for (const [file, route] of Object.entries(routes)) {
			const answers = METHODS.filter((method) => method in route).sort();
			expect(Object.keys((route._api ?? {}) as ApiRoute).sort(), file).toEqual(answers);
		}
	});

	it('is one document with the paths as they are asked for', async () => {
		const { openapi, paths } = await described();
		expect(openapi).toBe('3.1.0');
		expect(Object.keys(paths)).toHaveLength(Object.keys(routes).length);
		expect(paths['/cases/{id}/entries']).toHaveProperty('post');
		expect(paths['/library/{pack}/file']).toHaveProperty('get');
		expect(JSON.stringify(paths)).not.toContain('(shop)');
	});

	it('has the shape of every kind of entry that a program may send, by the schemas that check it', async () => {
		const { paths } = await described();
		const schema = JSON.stringify(paths['/cases/{id}/entries']?.post?.requestBody?.content);
		expect(schema).toContain('"const":"meter-reading"');
		expect(schema).not.toContain('"const":"signature"');
		expect(ENTRY_KINDS).toContain('signature');
	});
});
