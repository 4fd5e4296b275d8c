import type { CaseRow } from '../db/cases';
import type { Services } from '../services';
import { codeIn } from './floorPage';

/** Of those that fit, the newest. */
const MOST_FOUND = 100;

/** A page of the signed cases, the newest first; or of those that are called so and had a code. */
export async function closedPage(
	{ cases }: Services,
	{ words, code, page }: { words: string; code: string; page: number }
): Promise<{ rows: CaseRow[]; found: number; total: number; page: number; pages: number }> {
	if (words === '' && code === '') {
		const all = await cases.page(true, page);
		return { ...all, found: all.total };
	}
	const number = codeIn(code);
	const [{ total }, named, had] = await Promise.all([
		cases.page(true, 1),
		words === '' ? null : cases.named(words, MOST_FOUND),
		code === '' ? null : number === null ? [] : cases.casesWith(number, MOST_FOUND)
	]);
	const withCode = had && new Set(had.map(({ id }) => id));
	const ids = (named ?? had ?? []).map(({ id }) => id).filter((id) => !withCode || withCode.has(id));
	const rows = (await cases.rowsOf(ids)).filter(({ signed }) => signed);
	return { rows, found: rows.length, total, page: 1, pages: 1 };
}
