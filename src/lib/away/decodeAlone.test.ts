import { describe, expect, it } from 'vitest';
import { shippedPacks } from '../../../library/codes';
import { decodeAlone } from './decodeAlone';

describe('the decoder without a server', () => {
	it('says what a code is, its kind of failure and its state', async () => {
		const { codes, alone } = await decodeAlone('403514/2F');
		expect(alone).toBe(true);
		expect(codes).toHaveLength(1);
		expect(codes[0]).toMatchObject({ text: 'C0035-14' });
		expect(codes[0]?.title).not.toBe('');
		expect(codes[0]?.failureType).not.toBeNull();
		expect(codes[0]?.state).not.toBeNull();
	});

	it('finds every shipped definition by the words of its own title', async () => {
		const all = shippedPacks.flatMap(({ definitions }) => definitions);
		for (const { code, title } of all.filter((_, i) => i % 17 === 0)) {
			const { found, codes } = await decodeAlone(title);
			if (codes.length > 0) continue;
			expect(
				found.map((one) => one.title),
				`${code} ${title}`
			).toContain(title);
		}
	});

	it('takes begun words in any order, and says nothing of what it does not have', async () => {
		const titles = async (text: string) => (await decodeAlone(text)).found.map(({ title }) => title);
		expect(await titles('angle steer')).toEqual(await titles('steer angle'));
		expect((await titles('steer angle')).length).toBeGreaterThan(0);
		expect(await titles('xylophone')).toEqual([]);
		expect(await titles('')).toEqual([]);
	});
});
