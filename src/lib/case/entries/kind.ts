import type { z } from 'zod';
import type { VehicleType } from '../../../../library';
import type { CodeBook } from '../../../../library/codes';
import type { Seen } from '../../../../library/reason/signs';

/** Under which heading of the thread a kind of entry is found. */
export const THREAD_GROUPS = ['said', 'read', 'tested', 'done'] as const;
export type ThreadGroup = (typeof THREAD_GROUPS)[number];

/** How an entry reads on the thread: a headline, a line of detail, and what it showed. */
export interface EntryLine {
	title: string;
	detail: string;
	shows: string | null;
	/** The detail is somebody's own words: it stands as they said it, in their units too. */
	theirs?: true;
}

export const line = (title: string, detail: string, shows: string | null = null): EntryLine => ({
	title,
	detail,
	shows
});
/** A line that says what somebody said. */
export const quote = (title: string, words: string): EntryLine => ({ ...line(title, words), theirs: true });

/** Something of the library that an entry names, and the list it is to be found in. */
export type Named = readonly [what: string, id: string, known: { has(id: string): boolean }];

/** What is known around a thread while it is turned into observations. */
export interface Around {
	type: VehicleType;
	book: CodeBook;
	/** Codes that our own tests set, as address/dtc. */
	ours: ReadonlySet<string>;
}

/** What has happened since the last repair, which decides what a reading of codes says. */
export interface Since {
	cleared: boolean;
	cycled: boolean;
	driven: boolean;
	/** Codes are as they came, nothing repaired and nothing cleared yet. */
	asItCame: boolean;
}

/** All that is particular to one kind of entry; whatever handles entries asks here. */
export interface EntryFeature<P> {
	/** What it tells, in a sentence: for the published list of kinds. */
	about: string;
	group: ThreadGroup;
	/**
	 * Who writes it: `hand` = whoever may write on threads, also through the API; `work` = the server, of work it did on a
	 * vehicle; `rule` = a page of its own that decides whether it may be written.
	 */
	writer: 'hand' | 'work' | 'rule';
	/** The office writes it too: what customers say and are told, and how the day is planned. */
	atDesk?: true;
	/** Whether it may be withdrawn with a reason: what was measured or looked at, never what was read, done or said. */
	mayBeWithdrawn?: true;
	/** Whether it can change what is said of a code. */
	changesVerdicts: boolean;
	line(payload: P): EntryLine;
	/** Words by which its case is found: of the latest entry of the kind, or of each. */
	search?: { part: 'complaint' | 'mended' | 'notes'; of: 'latest' | 'each'; words(payload: P): string[] };
	/** What it names of the library. */
	names?(payload: P): readonly Named[];
	/** Photos that are kept beside the thread. */
	photos?(payload: P): readonly { id: string; sha256: string }[];
	/** What it shows, in the words of the library's signs; absent where it says nothing of what is wrong. */
	seen?(payload: P, around: Around, since: Since): Seen;
}

export interface Kind<K extends string, S extends z.ZodType> extends EntryFeature<z.output<S>> {
	kind: K;
	payload: S;
}

export const entryKind = <const K extends string, S extends z.ZodType>(
	kind: K,
	payload: S,
	feature: EntryFeature<z.output<S>>
): Kind<K, S> => ({ kind, payload, ...feature });
