import { codeName } from '../../core/codes/codeId';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';
import type { DrawnRing } from '../../core/scope/ringDrawing';
import type { Entry, EntryOf } from '../entries/entry';
import type { ScannedModule } from '../entries/network-scan/payload';
import { isMending } from '../mend/calibrations';
import { latest, ofKind } from '../thread/thread';
import { positionWords } from '../words';

/** The whole network as it came and as it goes, side by side. */
export interface BeforeAfter {
	/** When each side was read; null = there is no such reading. */
	beforeAt: string;
	afterAt: string | null;
	modules: ModuleChange[];
	lamps: { lamp: string; before: string; after: string | null }[];
	/** What live data and the oscilloscope showed of each wheel before and after the last repair, where either found something. */
	seen: SeenSides[];
	/** What was not there before: each a plain sentence. */
	added: string[];
}

export interface SeenSides {
	/** `live: rear left`, `scope: rear left`. */
	what: string;
	/** Findings, each once; empty = clean. */
	before: string[];
	/** Null = not looked at since. */
	after: string[] | null;
	/** Its ring as the oscilloscope saw it first and last; null where there is no picture of a whole turn. */
	rings: { before: RingSeen | null; after: RingSeen | null };
}
/** A ring to be drawn, with the teeth that something was found at. */
export interface RingSeen {
	ring: DrawnRing;
	marked: number[];
}

export interface ModuleChange {
	address: string;
	name: string;
	before: ModuleSide;
	after: ModuleSide | null;
}
export interface ModuleSide {
	answered: boolean;
	codes: { text: string; status: string }[];
}

/** The status of a code in the words of a technician. */
export function statusWords(status: number): string {
	const { testFailed, confirmed, pending, notTestedSinceClear } = decodeStatus(status);
	if (testFailed) return 'fails now';
	if (confirmed) return 'stored';
	if (pending) return 'seen once';
	return notTestedSinceClear ? 'not tested since the clear' : 'not failing';
}

const sideOf = ({ answered, codes }: ScannedModule): ModuleSide => ({
	answered,
	codes: codes
		.filter(({ status }) => tellsOfFault(status))
		.map(({ dtc, status }) => ({ text: codeName(dtc), status: statusWords(status) }))
});

/** The first whole reading against the last one that came after the last clear; null before anything was read. */
export function beforeAfter(entries: readonly Entry[]): BeforeAfter | null {
	const scans = ofKind(entries, 'network-scan').filter(({ payload }) => payload.outcome === 'complete');
	const [first] = scans;
	if (!first) return null;
	const clearedAt = entries.findLastIndex(({ kind }) => kind === 'codes-cleared');
	const after = scans.filter((scan) => clearedAt >= 0 && entries.indexOf(scan) > clearedAt).at(-1) ?? null;
	const modules = modulesOf(first, after);
	return {
		beforeAt: first.observedAt,
		afterAt: after?.observedAt ?? null,
		modules,
		lamps: lampsOf(entries, clearedAt),
		seen: seenIn(entries),
		added: modules.flatMap(addedIn)
	};
}

function modulesOf(first: EntryOf<'network-scan'>, last: EntryOf<'network-scan'> | null): ModuleChange[] {
	return first.payload.modules.map((before): ModuleChange => {
		const after = last?.payload.modules.find(({ address }) => address === before.address);
		return {
			address: before.address,
			name: before.name,
			before: sideOf(before),
			after: after ? sideOf(after) : null
		};
	});
}

function addedIn({ name, before, after }: ModuleChange): string[] {
	if (!after) return [];
	if (before.answered && !after.answered) return [`${name} answered before, and is silent now.`];
	const known = new Set(before.codes.map(({ text }) => text));
	return after.codes
		.filter(({ text }) => !known.has(text))
		.map(({ text, status }) => `${text} in ${name} was not there before: ${status}.`);
}

function lampsOf(entries: readonly Entry[], clearedAt: number): BeforeAfter['lamps'] {
	const check = latest(entries.slice(Math.max(0, clearedAt)), 'lamp-check')?.payload.lamps ?? [];
	const reported = latest([...entries], 'lamps-reported')?.payload.lamps ?? [];
	const names = new Set<string>([...reported.map(({ lamp }) => lamp), ...check.map(({ lamp }) => lamp)]);
	return [...names].map((lamp) => {
		const before = reported.find((one) => one.lamp === lamp);
		return {
			lamp,
			before: before ? `${before.manner}, ${before.when}` : 'not reported',
			after: check.find((one) => one.lamp === lamp)?.result ?? null
		};
	});
}

interface Look {
	what: string;
	found: string[];
	ring: RingSeen | null;
}

/** What an entry looked at, and what was found there. */
function looksOf(entry: Entry): Look[] {
	if (entry.kind === 'live-recording')
		return entry.payload.channels.map((channel) => ({
			what: `live: ${channel.replaceAll('_', ' ')}`,
			found: entry.payload.findings.filter((one) => one.channel === channel).map(({ text }) => text),
			ring: null
		}));
	if (entry.kind !== 'scope-capture') return [];
	return entry.payload.channels.flatMap(({ position, findings, ring }): Look[] => {
		if (!position) return [];
		const marked = findings.flatMap(({ teeth }) => teeth);
		const found = findings.map(({ text }) => text);
		return [{ what: `scope: ${positionWords(position)}`, found, ring: ring ? { ring, marked } : null }];
	});
}

function seenIn(entries: readonly Entry[]): SeenSides[] {
	const mendedAt = entries.findLastIndex(isMending);
	const sides = new Map<string, SeenSides>();
	for (const [at, entry] of entries.entries())
		for (const { what, found, ring } of looksOf(entry)) {
			const known = sides.get(what) ?? {
				what,
				before: [],
				after: null,
				rings: { before: null, after: null }
			};
			if (mendedAt >= 0 && at > mendedAt) {
				known.after = found;
				known.rings.after = ring ?? known.rings.after;
			} else {
				known.before = [...new Set([...known.before, ...found])];
				// The picture that shows the most stands for how it came.
				if (ring && ring.marked.length >= (known.rings.before?.marked.length ?? 0)) known.rings.before = ring;
			}
			sides.set(what, known);
		}
	return [...sides.values()].filter(({ before, after }) => before.length > 0 || (after?.length ?? 0) > 0);
}
