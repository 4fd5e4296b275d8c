import { onMount } from 'svelte';
import { followCase } from '../../../caseStream';
import type { HeardCode } from '$lib/case/entries/live-recording/payload';

interface Batch {
	id: string;
	channels: string[];
	rows: (number | null)[][];
	marks: { atS: number; label: string }[];
	heard: HeardCode[];
}

/** Seconds of the running recording that the pages keep at hand. */
const KEPT_S = 120;

/** Readings of the running recording as they come: the last two minutes, and the newest of each signal. */
export class LiveFeed {
	id = $state<string | null>(null);
	channels = $state.raw<string[]>([]);
	/** Newest value of each channel; null where it was not read. */
	now = $state.raw<Readonly<Record<string, number | null>>>({});
	timeS = $state(0);
	rateHz = $state(0);
	marks = $state.raw<{ atS: number; label: string }[]>([]);
	/** What the modules said of their codes while it ran. */
	heard = $state.raw<HeardCode[]>([]);
	/** Grows with every batch; what is drawn from {@link rows} depends on it. */
	version = $state(0);
	/** Time, then one value a channel, oldest first. Not reactive: it changes twelve times a second. */
	rows: (number | null)[][] = [];
	private listeners: ((row: (number | null)[], channels: string[]) => void)[] = [];

	/** Must be called while a component is being made. @param whole whether all that was recorded so far is wanted too */
	constructor(caseId: () => string, whole = false) {
		onMount(() =>
			followCase({ caseId: caseId(), live: whole ? 'whole' : 'recent' }, ({ name, value }) => {
				if (name === 'rows') this.take(value as Batch);
			})
		);
	}

	/** Calls back with every single row, in order, none left out. */
	onrow(listener: (row: (number | null)[], channels: string[]) => void): () => void {
		this.listeners = [...this.listeners, listener];
		return () => (this.listeners = this.listeners.filter((one) => one !== listener));
	}

	private take({ id, channels, rows, marks, heard }: Batch): void {
		if (id !== this.id) {
			this.id = id;
			this.rows = [];
			this.channels = channels;
		}
		this.marks = marks;
		if (heard.length !== this.heard.length) this.heard = heard;
		const lastS = this.rows.at(-1)?.[0] ?? -1;
		// After a lost connection the last minutes come again.
		const fresh = rows.filter(([t]) => (t ?? 0) > lastS);
		for (const row of fresh) {
			this.rows.push(row);
			for (const listener of this.listeners) listener(row, this.channels);
		}
		const newest = this.rows.at(-1);
		if (!newest) return;
		this.timeS = newest[0] ?? 0;
		const old = this.rows.findIndex(([t]) => (t ?? 0) > this.timeS - KEPT_S);
		if (old > 200) this.rows.splice(0, old);
		const before = this.rows.at(-41) ?? this.rows[0];
		const count = Math.min(40, this.rows.length - 1);
		const spanS = this.timeS - (before?.[0] ?? 0);
		this.rateHz = spanS > 0 ? count / spanS : 0;
		this.now = Object.fromEntries(this.channels.map((name, c) => [name, newest[c + 1] ?? null]));
		this.version += 1;
	}
}
