import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { decodeCode } from '$lib/case/codes/decoded';
import { LONGEST_SPELLING, parseSpelling } from '$lib/core/codes/spelling';
import { answer, numbersOf } from '$lib/case/codes/answerText';

const MOST_TITLES = 2000;
const Titles = z.object({ spellings: z.array(z.string().max(200)).max(MOST_TITLES) });

export const _api: ApiRoute = {
	GET: {
		says: 'What a code, or any spelling of one, means.',
		query: { q: 'what was typed', case: 'case whose vehicle it is about' },
		gives: jsonOf('What the decoder says.')
	},
	POST: {
		says: 'What many codes are called.',
		takes: Titles,
		gives: jsonOf('Titles by spelling.')
	}
};

/** What the decoder says to `q`; with `case`, in the words for that case's vehicle. */
export async function GET(event) {
	const text = (event.url.searchParams.get('q') ?? '').slice(0, LONGEST_SPELLING);
	const caseId = event.url.searchParams.get('case');
	const { codes, cases, customers } = event.locals.services;
	const maker = caseId ? await cases.makerOf(caseId) : null;
	return json(await answer(codes, cases, text, maker, customers), {
		headers: { 'cache-control': 'private, max-age=5' }
	});
}

/** What many codes are called, for a preview: spelling → title, those without one left out. */
export async function POST(event) {
	const asked = Titles.safeParse(await event.request.json().catch(() => null));
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const codes = asked.data.spellings.flatMap((text) => {
		const spelled = parseSpelling(text);
		return spelled.ok ? spelled.value.codes.map((code) => ({ text, code })) : [];
	});
	const book = await event.locals.services.codes.bookFor(numbersOf(codes.map(({ code }) => code)));
	const titles = codes.map(({ text, code }) => [text, decodeCode(code, text, book).title] as const);
	return json(Object.fromEntries(titles.filter(([, title]) => title !== null)));
}
