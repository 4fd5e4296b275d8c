import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { EntryDraft, type EntryKind, type PayloadOf } from '../../case/entries/entry';
import { answer } from '../../case/codes/answerText';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { CodeLibrary } from './codeLibrary';

let shop: TestShop;
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

async function write<K extends EntryKind>(kind: K, payload: PayloadOf<K>): Promise<void> {
	await put(shop, kind, payload);
	await shop.cases.refresh(shop.caseId);
}
const repair = (title: string) => ({
	title,
	position: null,
	parts: [],
	temporary: false,
	note: 'green copper at the inner clip'
});

describe('words on the shop’s threads', () => {
	it('find the case by what the customer said and by what was mended, and show the line', async () => {
		await write('complaint', {
			words: 'The lamp comes on over the ferry ramp',
			symptoms: [],
			conditions: []
		});
		await write('repair', repair('Splice soldered anew'));
		const [found] = await shop.cases.search('soldered spli', 5);
		expect(found).toMatchObject({
			id: shop.caseId,
			complaint: 'The lamp comes on over the ferry ramp',
			because: 'Splice soldered anew, green copper at the inner clip'
		});
		expect((await shop.cases.search('ferry ramp', 5))[0]?.because).toBeNull();
		expect(await shop.cases.search('capstan', 5)).toEqual([]);
	});

	it('follow the thread: what was corrected is found no more', async () => {
		await write('note', { text: 'smells of kelp' });
		expect(await shop.cases.search('kelp', 5)).toHaveLength(1);
		const [note] = (await shop.threads.read(shop.caseId)).filter((e) => e.kind === 'note');
		const stored = await shop.threads.append(
			EntryDraft.parse({
				...note,
				id: ulid(),
				payload: { text: 'smells of brake fluid' },
				supersedes: { entryId: note?.id, why: 'looked again' }
			}),
			shop.ana
		);
		expect(stored.ok).toBe(true);
		await shop.cases.refresh(shop.caseId);
		expect(await shop.cases.search('kelp', 5)).toEqual([]);
		expect(await shop.cases.search('fluid', 5)).toHaveLength(1);
	});

	it('stand below the codes in what the decoder answers', async () => {
		const library = new CodeLibrary(shop.db);
		await library.prepare();
		await write('repair', repair('Kick panel dried out'));
		const { found } = await answer(library, shop.cases, 'kick panel', null);
		expect(found[0]?.href).toBe('/codes/U1A02');
		expect(found.at(-1)).toMatchObject({ href: `/cases/${shop.caseId}`, text: 'TP-0401' });
	});
});
