import type { z } from 'zod';
import * as all from './all';
import type { EntryFeature } from './kind';

type AnyKind = (typeof all)[keyof typeof all];
export type EntryKind = AnyKind['kind'];
type KindOf<K extends EntryKind> = Extract<AnyKind, { kind: K }>;
export type PayloadOf<K extends EntryKind> = z.output<KindOf<K>['payload']>;

const byKind = Object.fromEntries(Object.values(all).map((one) => [one.kind, one])) as {
	[K in EntryKind]: KindOf<K>;
};
/** In the order of the alphabet: how a bundler keeps the exports of a module is its own affair. */
export const ENTRY_KINDS = (Object.keys(byKind) as EntryKind[]).sort();

/** The shape of the payload of every kind. A changed shape gets a new version, never a changed meaning. */
export const PAYLOADS = Object.fromEntries(ENTRY_KINDS.map((kind) => [kind, byKind[kind].payload])) as {
	[K in EntryKind]: KindOf<K>['payload'];
};

/** What is particular to a kind of entry, to be asked with a payload of that kind. */
export const featureOf = (kind: EntryKind): EntryFeature<unknown> => byKind[kind];

/** Kinds of which something holds. */
export const kindsWhere = (holds: (feature: EntryFeature<unknown>) => boolean): EntryKind[] =>
	ENTRY_KINDS.filter((kind) => holds(featureOf(kind)));
