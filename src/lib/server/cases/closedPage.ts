import type { CaseRow } from '../db/cases';
import type { Services } from '../services';
import { codeIn } from './floorPage';

/** Of those that fit, the newest are looked at. */
const MOST_FOUND = 200;

/** The newest cases that are called so and had a code, open ones among them; either may be empty. */
async function idsOf({ cases }: Services, words: string, code: string): Promise<string[]> {
	const number = code === '' ? null : codeIn(code);
	if (code !== '' && number === null) return [];
	if (words === '') return (await cases.casesWith(number ?? '', MOST_FOUND)).map(({ id }) => id);
	const named = (await cases.named(words, MOST_FOUND)).map(({ id }) => id);
	return number === null ? named : cases.thatHad(number, named);
}

/** A page of the signed cases, the newest first; or of those that are called so and had a code. */
export async function closedPage(
	services: Services,
	{ words, code, page }: { words: string; code: string; page: number }
): Promise<{ rows: CaseRow[]; found: number; total: number; page: number; pages: number; isAll: boolean }> {
	const { cases } = services;
	const all = await cases.page(true, page);
	if (words === '' && code === '') return { ...all, found: all.total, isAll: true };
	const ids = await idsOf(services, words, code);
	const rows = (await cases.rowsOf(ids)).filter(({ signed }) => signed);
	return {
		rows,
		found: rows.length,
		total: all.total,
		page: 1,
		pages: 1,
		isAll: ids.length < MOST_FOUND
	};
}
