import { MOST_MARKS, type HeardCode, type LiveMark } from '../../case/entries/live-recording/payload';
import type { Chunk } from '../../core/live/chunk';
import type { Captures, Owned } from '../db/captures';

/** What watchers of a running recording are sent. */
export interface LiveBatch {
	id: string;
	/** Names of the columns of `rows` after the time. */
	channels: string[];
	/** Seconds from the start, then the values; null where there is none. */
	rows: (number | null)[][];
	marks: LiveMark[];
	/** What the modules have said of their codes so far. */
	heard: readonly HeardCode[];
}

const FLUSH_EVERY_S = 1;
const SEND_EVERY_MS = 80;
/** Whoever joins late is told what was, in pieces of this size. */
const CATCH_UP_ROWS = 2_000;
const GROWTH_ROWS = 4_096;

/** One recording while it runs: takes rows, hands them on, writes them down every second. */
export class Recorder {
	readonly marks: LiveMark[] = [];
	private readonly watchers = new Set<(batch: LiveBatch) => void>();
	private timeS = new Float64Array(GROWTH_ROWS);
	private columns: Float64Array[];
	private rows = 0;
	private flushed = 0;
	private sent = 0;
	private pieces = 0;
	private writing: Promise<void> = Promise.resolve();
	private readonly timer: ReturnType<typeof setInterval>;

	constructor(
		private readonly own: Owned,
		private readonly channels: string[],
		private readonly captures: Captures,
		private readonly heard: readonly HeardCode[] = []
	) {
		this.columns = channels.map(() => new Float64Array(GROWTH_ROWS));
		this.timer = setInterval(() => this.send(), SEND_EVERY_MS);
	}

	get lastS(): number {
		return this.rows > 0 ? (this.timeS[this.rows - 1] ?? 0) : 0;
	}

	take(timeS: number, values: Float64Array): void {
		if (this.rows === this.timeS.length) this.grow();
		this.timeS[this.rows] = timeS;
		for (const [c, column] of this.columns.entries()) column[this.rows] = values[c] ?? NaN;
		this.rows += 1;
		if (timeS - (this.timeS[this.flushed] ?? 0) >= FLUSH_EVERY_S) this.flush();
	}

	mark(label: string): LiveMark | null {
		if (this.marks.length >= MOST_MARKS) return null;
		const mark = { atS: this.lastS, label };
		this.marks.push(mark);
		this.writing = this.writing.then(() => this.captures.setMarks(this.own, this.marks));
		this.send(true);
		return mark;
	}

	/** Tells everything read after a time, then what follows as it comes. @returns how to stop */
	watch(onBatch: (batch: LiveBatch) => void, afterS: number): () => void {
		let from = this.timeS.subarray(0, this.sent).findIndex((t) => t > afterS);
		if (from < 0) from = this.sent;
		do {
			const to = Math.min(this.sent, from + CATCH_UP_ROWS);
			onBatch(this.batch(from, to));
			from = to;
		} while (from < this.sent);
		this.watchers.add(onBatch);
		return () => this.watchers.delete(onBatch);
	}

	/** Everything that was taken, once it is all on disk. Throws when the disk refused. */
	async end(): Promise<Chunk> {
		this.stop();
		this.send();
		this.flush();
		await this.writing;
		return this.slice(0, this.rows);
	}

	/** Nothing more is taken. */
	stop(): void {
		clearInterval(this.timer);
	}

	private send(always = false): void {
		if (this.sent === this.rows && !always) return;
		const batch = this.batch(this.sent, this.rows);
		this.sent = this.rows;
		for (const watcher of this.watchers) watcher(batch);
	}

	private batch(from: number, to: number): LiveBatch {
		const rows = Array.from({ length: to - from }, (_, n) => [
			this.timeS[from + n] ?? 0,
			...this.columns.map((column) => {
				const value = column[from + n] ?? NaN;
				return Number.isNaN(value) ? null : value;
			})
		]);
		return { id: this.own.id, channels: this.channels, rows, marks: this.marks, heard: this.heard };
	}

	private flush(): void {
		if (this.flushed === this.rows) return;
		const chunk = this.slice(this.flushed, this.rows);
		const seq = this.pieces++;
		this.flushed = this.rows;
		this.writing = this.writing.then(() => this.captures.add(this.own, seq, chunk));
		// Told when the recording ends; until then a later piece may still be written.
		this.writing.catch(() => undefined);
	}

	private slice(from: number, to: number): Chunk {
		return {
			timeS: this.timeS.slice(from, to),
			channels: new Map(
				this.channels.map((name, c) => [name, (this.columns[c] ?? this.timeS).slice(from, to)])
			)
		};
	}

	private grow(): void {
		const wider = (column: Float64Array) => {
			const grown = new Float64Array(column.length * 2);
			grown.set(column);
			return grown;
		};
		this.timeS = wider(this.timeS);
		this.columns = this.columns.map(wider);
	}
}
