import { z } from 'zod';
import { kindsWhere } from '../../case/entries/registry';
import { ENTRY_VERSION, PAYLOADS, type EntryKind, type PayloadOf } from '../../case/entries/entry';
import { fail, ok, type Result } from '../../core/result';
import { mayWrite, type Role } from '../accounts/members';
import { NO_WORK } from '../gate/gate';
import type { NewEntry } from './addEntry';

/** What a person may write down by hand; readings and clears are made by the server that did them, signatures by rule. */
const BY_HAND = kindsWhere(({ writer }) => writer === 'hand');

export const SentEntry = z.object({
	id: z.string(),
	kind: z.enum(BY_HAND),
	version: z.literal(ENTRY_VERSION),
	observedAt: z.iso.datetime(),
	payload: z.unknown(),
	supersedes: z.object({ entryId: z.string(), why: z.string() }).nullable().default(null)
});

const AT_DESK: ReadonlySet<EntryKind> = new Set(kindsWhere(({ atDesk }) => atDesk === true));

/** @returns why somebody of this role may not write entries of this kind; null = they may */
export const refusedKind = (kind: EntryKind, role: Role): string | null =>
	mayWrite({ role }) || AT_DESK.has(kind) ? null : NO_WORK;

/** The same with what may stand in each kind, for whoever writes a program that sends entries. */
export const WrittenEntry = z.union(
	BY_HAND.map((kind) => SentEntry.extend({ kind: z.literal(kind), payload: PAYLOADS[kind] }))
);

/** Clocks differ a little; an entry from tomorrow is a wrong clock. */
const CLOCK_SLACK_MS = 5 * 60_000;

/** An entry as a page sends it → what is to be stored; the error is a sentence for the person. */
export function readSentEntry(sent: z.infer<typeof SentEntry>): Result<Omit<NewEntry<EntryKind>, 'caseId'>> {
	const { id, kind, observedAt, supersedes } = sent;
	if (Date.parse(observedAt) > Date.now() + CLOCK_SLACK_MS)
		return fail(
			`It says it was observed at ${observedAt}, which has not come yet: set the clock of this device.`
		);
	const payload = PAYLOADS[kind].safeParse(sent.payload);
	if (!payload.success) return fail(z.prettifyError(payload.error));
	return ok({ id, kind, payload: payload.data as PayloadOf<EntryKind>, supersedes, observedAt });
}
