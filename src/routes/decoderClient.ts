import { outbox } from '$lib/away/outbox.svelte';
import type { DecoderAnswer } from '$lib/case/codes/decoderAnswer';
import type { PayloadOf } from '$lib/case/entries/entry';

/** Asks the server's decoder, and this device's own where the server cannot be reached. Throws where the server refuses. */
export const askDecoder =
	(caseId: string | null) =>
	async (text: string): Promise<DecoderAnswer> => {
		const query = new URLSearchParams({ q: text });
		if (caseId) query.set('case', caseId);
		const response = outbox.away ? null : await fetch(`/decoder?${query}`).catch(() => null);
		if (!response) return (await import('$lib/away/decodeAlone')).decodeAlone(text);
		if (!response.ok) throw new Error(`the decoder answered ${response.status}`);
		return response.json();
	};

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
