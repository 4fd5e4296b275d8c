import { describe, expect, it } from 'vitest';
import { BodyTooLarge, limited, mostBytes } from './bodyLimit';

const endless = () =>
	new ReadableStream<Uint8Array>({ pull: (controller) => controller.enqueue(new Uint8Array(1_000)) });
const post = (body: BodyInit) =>
	new Request('http://here/', { method: 'POST', body, duplex: 'half' } as RequestInit);

describe('what a request may bring', () => {
	it('is little where anybody may ask, and enough for a photo where one belongs', () => {
		expect(mostBytes('/sign-in')).toBe(4 * 1024);
		expect(mostBytes('/cases/X/measure/photo')).toBeGreaterThan(20_000_000);
		expect(mostBytes('/anything/else')).toBe(512 * 1024);
	});

	it('ends with an error as soon as it is more, though its head promised nothing', async () => {
		await expect(limited(post(endless()), 10_000).arrayBuffer()).rejects.toThrow(BodyTooLarge);
		expect(await limited(post('just enough'), 11).text()).toBe('just enough');
	});
});
