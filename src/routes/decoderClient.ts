import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import type { DecoderAnswer } from '$lib/case/codes/decoderAnswer';
import type { EntryKind, PayloadOf } from '$lib/case/entries/entry';
import { ENTRY_VERSION } from '$lib/case/entries/entryVersion';

/** Asks the server's decoder. Throws where the server cannot be reached or refuses. */
export const askDecoder =
	(caseId: string | null) =>
	async (text: string): Promise<DecoderAnswer> => {
		const query = new URLSearchParams({ q: text });
		if (caseId) query.set('case', caseId);
		const response = await fetch(`/decoder?${query}`);
		if (!response.ok) throw new Error(`the decoder answered ${response.status}`);
		return response.json();
	};

/** Puts an entry on a case from a page; says what went wrong. The same `id` again stores it once. */
export async function sendEntry<K extends EntryKind>(
	caseId: string,
	kind: K,
	payload: PayloadOf<K>,
	id = ulid(),
	supersedes: { entryId: string; why: string } | null = null
): Promise<boolean> {
	try {
		const response = await fetch(`/cases/${caseId}/entries`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({
				id,
				kind,
				version: ENTRY_VERSION,
				observedAt: new Date().toISOString(),
				payload,
				supersedes
			})
		});
		if (response.ok) return true;
		const answer = (await response.json().catch(() => null)) as { message?: string } | null;
		toast.error(answer?.message ?? 'The server refused. Nothing was saved.');
	} catch {
		toast.error('The server cannot be reached. Nothing was saved; try again.');
	}
	return false;
}

/** A code typed by a person, as the entry that notes it. Null where the text names none. */
export async function notedCode(text: string): Promise<PayloadOf<'codes-reported'> | null> {
	const { parseSpelling } = await import('$lib/core/codes/spelling');
	const spelled = parseSpelling(text);
	if (!spelled.ok || spelled.value.codes.length === 0) return null;
	return {
		origin: 'typed',
		sourceName: '',
		text,
		modules: [
			{
				name: null,
				codes: spelled.value.codes.map((code) => ({
					code,
					spelling: text.slice(0, 200),
					line: 1,
					words: [],
					told: ''
				})),
				values: []
			}
		]
	};
}

/** What codes are called here, by their spelling. Throws where the server cannot be reached. */
export async function titlesOf(spellings: string[]): Promise<Record<string, string>> {
	if (spellings.length === 0) return {};
	const response = await fetch('/decoder', {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ spellings })
	});
	if (!response.ok) throw new Error(`the decoder answered ${response.status}`);
	return response.json();
}
