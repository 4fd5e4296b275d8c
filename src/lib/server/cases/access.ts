import { error, type RequestEvent } from '@sveltejs/kit';
import type { Entry } from '../../case/entries/entry';
import { projectCase } from '../../case/progress/project';
import type { Member } from '../accounts/members';
import type { CaseRow } from '../db/cases';
import { codesOn } from '../../case/codes/caseCodes';
import { typeOf } from '../../case/thread/vehicleOf';
import type { Stores } from '../stores';
import type { LoadedCase } from './loadedCase';

type Where = Pick<RequestEvent, 'locals'>;

/** Whoever is signed in. The gate in the hooks lets nobody else through. */
export function memberHere({ locals }: Where): Member {
	if (!locals.member) error(401, 'Sign in first.');
	return locals.member;
}

export async function caseRowHere({ cases }: Pick<Stores, 'cases'>, id: string): Promise<CaseRow> {
	const row = await cases.find(id);
	if (!row) error(404, 'There is no such case. It may have been opened in another shop.');
	return row;
}

/** Entries that another shop wrote are shown as by its people, whatever names stand on them. */
function theirs({ fromShop, fromEntries }: CaseRow, thread: Entry[]): Entry[] {
	if (fromShop === null) return thread;
	return thread.map((entry) =>
		entry.seq <= fromEntries ? { ...entry, authorName: `${entry.authorName} of ${fromShop}` } : entry
	);
}

/** The same, its chain checked from disk: for what is signed, printed or handed on. */
export async function loadCheckedCase(stores: Stores, id: string): Promise<LoadedCase> {
	await stores.threads.check(id);
	return loadCase(stores, id);
}

/** A case with its thread and all that the thread says. Until it grows, or what is known of codes changes, it is kept. */
export async function loadCase(stores: Stores, id: string): Promise<LoadedCase> {
	const { threads, codes, memory } = stores;
	const [row, written, stamp] = await Promise.all([caseRowHere(stores, id), threads.read(id), codes.stamp()]);
	const of = `${written.length} ${written.at(-1)?.hash} ${stamp} ${row.fromShop}`;
	const known = memory.loaded.find(id, of);
	if (known) return { row, ...known };
	const thread = theirs(row, written);
	const book = await codes.bookFor(codesOn(thread));
	const view = projectCase(thread, book);
	return { row, ...memory.loaded.keep(id, of, { thread, view, type: typeOf(view.entries) }) };
}

/** The case that a page shows, read once a request. Actions read it themselves: what they change is shown after them. */
export const caseHere = ({
	params,
	locals
}: {
	params: { id: string };
	locals: App.Locals;
}): Promise<LoadedCase> => (locals.openCase ??= loadCase(locals.services, params.id));
