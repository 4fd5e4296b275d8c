import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { CodeDefinition, CodePack } from '../../../../library/codePack';
import { sourcesFor, titleSource } from '../../../../library/codes';
import { openTestShop, type TestShop } from '../shop.fixture';
import { CodeLibrary, SHOP_PACK_ID } from './codeLibrary';

let shop: TestShop;
let codes: CodeLibrary;
beforeEach(async () => {
	shop = await openTestShop();
	codes = new CodeLibrary(shop.db);
	await codes.prepare();
});
afterEach(() => shop.close());

const definition = (code: string, title: string, change: Partial<CodeDefinition> = {}): CodeDefinition => ({
	code,
	failureType: null,
	title,
	group: 'wheel-speed',
	component: null,
	corner: null,
	lamps: [],
	driving: 'unaffected',
	setConditions: null,
	testConditions: null,
	causes: ['crab pot rope round the lead'],
	notes: '',
	sender: null,
	...change
});
const pack = (id: string, ...definitions: CodeDefinition[]): CodePack => ({
	format: 'jaldi-code-pack',
	version: 1,
	id,
	conditions: 'stated',
	name: `Pack ${id}`,
	source: 'a file',
	date: '2026-11-01',
	maker: null,
	definitions
});
const MARIT = { id: 'marit', name: 'Marit' };
const by = (basedOn: number, why = 'seen on three vehicles') => ({ authorName: 'Marit', why, basedOn });
const titles = async (code: string) =>
	sourcesFor(await codes.bookFor([code]), { code }).map((d) => `${d.pack.id}: ${d.title}`);

describe('the shop’s code library', () => {
	it('finds shipped codes by any words, also by the beginning of the last one', async () => {
		expect((await codes.search('rear left wheel sp')).map((f) => f.code)).toContain('C0045');
		expect((await codes.search('kick panel'))[0]?.code).toBe('U1A02');
		expect((await codes.search('C0035'))[0]?.code).toBe('C0035');
		expect((await codes.search('steering zebra')).length).toBeGreaterThan(0);
		expect(await codes.search('zebra')).toEqual([]);
		for (const odd of ['', '   ', '"', '* OR NEAR(', "'; DROP TABLE x; --", ':)', 'code:x AND', '\0'])
			expect(Array.isArray(await codes.search(odd))).toBe(true);
	});

	it('laying the shipped packs down again changes nothing', async () => {
		const before = await codes.packs();
		await codes.prepare();
		expect(await codes.packs()).toEqual(before);
	});

	it('the shop’s own words come first and every version stays', async () => {
		expect(await codes.saveOwn(definition('C0045', 'Rear left: look at the clip first'), by(0))).toEqual({
			ok: true,
			value: 1
		});
		expect(
			await codes.saveOwn(definition('C0045', 'Rear left: clip, then splice'), by(1, 'learned more'))
		).toEqual({ ok: true, value: 2 });
		expect((await titles('C0045'))[0]).toBe('shop: Rear left: clip, then splice');
		const versions = await codes.ownVersions('C0045');
		expect(versions.map((v) => [v.version, v.current, v.why])).toEqual([
			[2, true, 'learned more'],
			[1, false, 'seen on three vehicles']
		]);
		expect((await codes.search('clip')).filter((f) => f.packId === SHOP_PACK_ID)).toHaveLength(1);
	});

	it('the shop’s own words stand before the maker’s, and name the code also where they are for one suffix', async () => {
		await codes.saveOwn(definition('C0045', 'Here: the clip', { failureType: '13' }), by(0));
		const asked = { code: 'C0045', failureType: '13', maker: 'Brindle' };
		const book = await codes.bookFor(['C0045']);
		expect(sourcesFor(book, asked).map((d) => d.pack.id)).toEqual([
			'shop',
			'maker-brindle',
			'circuit-numbering',
			'chassis-table'
		]);
		expect(titleSource(book, asked)?.title).toBe('Here: the clip');
		expect(titleSource(book, { ...asked, failureType: '2F' })?.pack.id).toBe('circuit-numbering');
	});

	it('two leads on one code never overwrite each other, and the same sent twice is stored once', async () => {
		const mine = definition('C0045', 'Mine');
		await codes.saveOwn(mine, by(0));
		expect(await codes.saveOwn(mine, by(0))).toEqual({ ok: true, value: 1 });
		const theirs = await codes.saveOwn(definition('C0045', 'Theirs'), by(0));
		expect(!theirs.ok && theirs.error).toMatch(/version 1 while you were writing/);
		expect((await codes.ownVersions('C0045')).map((v) => v.definition.title)).toEqual(['Mine']);
	});

	it('a pack comes in whole, is found, goes out as it came, and goes away again', async () => {
		const brought = pack('cove', definition('C1777', 'Winch sensor'), definition('C0045', 'Another view'));
		expect(await codes.importPack(brought, MARIT)).toEqual({ ok: true, value: 2 });
		expect((await codes.search('winch'))[0]?.packId).toBe('cove');
		expect((await titles('C0045')).slice(0, 2)).toEqual([
			'cove: Another view',
			'circuit-numbering: Rear-left wheel speed sensor circuit'
		]);
		expect(await codes.exportPack('cove')).toEqual(brought);
		await codes.importPack(pack('cove', definition('C1777', 'Capstan sensor')), MARIT);
		expect(await codes.search('winch')).toEqual([]);
		expect((await codes.removePack('cove', MARIT)).ok).toBe(true);
		expect(await codes.search('capstan')).toEqual([]);
		expect(await titles('C1777')).toEqual([]);
	});

	it('a file cannot replace what is shipped or what the shop wrote', async () => {
		for (const id of ['chassis-table', SHOP_PACK_ID])
			expect((await codes.importPack(pack(id, definition('C0045', 'x')), MARIT)).ok).toBe(false);
		expect((await codes.removePack('chassis-table', MARIT)).ok).toBe(false);
	});

	it('a long pack is paged', async () => {
		const many = Array.from({ length: 230 }, (_, i) =>
			definition(`C1${i.toString(16).toUpperCase().padStart(3, '0')}`, `Number ${i}`)
		);
		await codes.importPack(pack('many', ...many), MARIT);
		const page = await codes.packPage('many', 3);
		expect(page?.pages).toBe(3);
		expect(page?.definitions).toHaveLength(30);
		expect(await codes.packPage('nothing', 1)).toBeNull();
	});
});
