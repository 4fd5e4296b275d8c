import { mayBeWithdrawn } from '../../case/thread/withdrawal';
import { describeEntry, whatItShowed, type ThreadLine } from '../../case/thread/describe';
import { featureOf } from '../../case/entries/registry';
import type { Entry } from '../../case/entries/entry';
import { latest, standing } from '../../case/thread/thread';
import type { LoadedCase } from './loadedCase';
import { clock } from './clock';

/** Newest entries shown beside the station; the rest is on the hand-over page. */
const LINES_SHOWN = 60;

type Words = Pick<ThreadLine, 'title' | 'detail' | 'shows'>;
/** What an entry says and showed never changes: neither does anything before it. */
const said = new WeakMap<Entry, Words>();

function wordsOf(thread: readonly Entry[], entry: Entry): Words {
	const known = said.get(entry);
	if (known) return known;
	const { title, detail, shows } = describeEntry(entry);
	const shown = whatItShowed(thread.slice(0, entry.seq - 1), entry);
	const words = {
		title,
		detail,
		shows: shown.length > 0 || shows === null ? shown : [{ words: shows, good: false }]
	};
	said.set(entry, words);
	return words;
}

/** The thread as the panel shows it, newest first. */
export function threadLines({ thread }: Pick<LoadedCase, 'thread'>): ThreadLine[] {
	const counting = new Set(standing(thread).map((entry) => entry.id));
	return thread
		.slice(-LINES_SHOWN)
		.map((entry): ThreadLine => {
			return {
				id: entry.id,
				group: entry.kind === 'unknown' ? null : featureOf(entry.kind).group,
				...wordsOf(thread, entry),
				time: clock(entry.observedAt),
				author: entry.authorName,
				seq: entry.seq,
				kind: entry.kind,
				receivedAt: entry.receivedAt,
				corrects: entry.supersedes?.why ?? null,
				mayBeWithdrawn: mayBeWithdrawn(entry.kind),
				superseded: !counting.has(entry.id),
				hash: entry.hash
			};
		})
		.reverse();
}

/** Lamps with the same behaviour in one phrase: "anti-lock, stability: above a speed". */
function lampWords(lamps: { lamp: string; when: string }[]): string[] {
	const byWhen = new Map<string, string[]>();
	for (const { lamp, when } of lamps) byWhen.set(when, [...(byWhen.get(when) ?? []), lamp]);
	return [...byWhen].map(([when, names]) => `${names.join(', ')}: ${when}`);
}

/** What every page of a case shows around its station. */
export function casePage(loaded: LoadedCase) {
	const { row, thread, view } = loaded;
	const lamps = view.entries.filter((e) => e.kind === 'lamps-reported').at(-1)?.payload.lamps ?? [];
	const lampCheck = view.entries.filter((e) => e.kind === 'lamp-check').at(-1);
	const allOut = lampCheck?.payload.lamps.every((l) => l.result === 'lit and went out') ?? false;
	return {
		id: row.id,
		number: row.number,
		vehicle: row.vehicle,
		vehicleName: row.vehicleName,
		complaint: latest(view.entries, 'complaint')?.payload.words ?? null,
		lampWords:
			allOut && lampCheck ? [`all lamps out since ${clock(lampCheck.observedAt)}`] : lampWords(lamps),
		stations: view.stations,
		next: view.next,
		signed: view.signature !== null,
		headSeq: thread.length,
		headHash: thread.at(-1)?.hash ?? '',
		chain: row.chainBroken,
		lines: threadLines(loaded)
	};
}
