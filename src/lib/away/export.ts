import { strToU8, zipSync, type Zippable } from 'fflate';
import type { Recorded, Waiting } from './recorded';

/** What a file of what waits is, and which of its kinds. */
const FORMAT = { format: 'jaldi-waiting', version: 1 } as const;

/**
 * What waits on this device as one file, a zip: `waiting.json` says what each is and where it was to go, and names the file of
 * its contents as it would have been sent.
 */
export async function exportOf(
	all: readonly Waiting[],
	bodyOf: (one: Waiting) => Promise<Recorded['body'] | null>
): Promise<Uint8Array<ArrayBuffer>> {
	const files: Zippable = {};
	const list: (Waiting & { contents: string | null })[] = [];
	for (const one of all) {
		const body = await bodyOf(one);
		const name = `contents/${String(one.seq).padStart(4, '0')}`;
		if (body !== null) files[name] = typeof body === 'string' ? strToU8(body) : body;
		list.push({ ...one, contents: body === null ? null : name });
	}
	files['waiting.json'] = strToU8(JSON.stringify({ ...FORMAT, waiting: list }, null, '\t'));
	return new Uint8Array(zipSync(files));
}
