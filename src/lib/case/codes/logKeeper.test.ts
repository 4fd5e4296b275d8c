import { createHash } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { LogKeeper } from './logKeeper';

const bytesOf = (text: string) => new TextEncoder().encode(text);
async function* inPieces(text: string, size: number) {
	for (let at = 0; at < text.length; at += size) yield bytesOf(text.slice(at, at + size));
}
const LOG = Array.from(
	{ length: 500 },
	(_, i) => `(${i}.000000) bus0 7E0#031902FF000000${i % 10}${i % 7}`
).join('\n');

describe('a log that is kept while it is read', () => {
	it.each([1, 7, 4096, 1_000_000])('comes out as it went in, in pieces of %i', async (size) => {
		const keeper = new LogKeeper();
		let read = '';
		for await (const piece of keeper.through(inPieces(LOG, size))) read += new TextDecoder().decode(piece);
		expect(read).toBe(LOG);
		const kept = keeper.end();
		expect(gunzipSync(kept?.packed ?? new Uint8Array()).toString()).toBe(LOG);
		expect(kept).toMatchObject({
			bytes: LOG.length,
			sha256: createHash('sha256').update(LOG).digest('hex')
		});
	});

	it('is read to its end and not kept where it is too large', async () => {
		const keeper = new LogKeeper(LOG.length - 1);
		let bytes = 0;
		for await (const piece of keeper.through(inPieces(LOG, 100))) bytes += piece.length;
		expect(bytes).toBe(LOG.length);
		expect(keeper.end()).toBeNull();
	});
});
