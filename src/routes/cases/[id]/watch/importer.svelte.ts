import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import { outbox } from '$lib/away/outbox.svelte';
import type { LiveVehicle } from '$lib/core/live/analyse';
import {
	mappingOf,
	recalledMapping,
	rememberedMapping,
	UNIT_CHOICES,
	type ColumnGuess,
	type ColumnMapping
} from '$lib/core/live/columnMapping';
import type { FrameSignal } from '$lib/core/live/frameSignals';
import type { FileRead, FramesSeen, Inspected } from '../../../../workers/live.worker';
import { isWheel } from '$lib/core/live/recording';
import { isFrameLog } from '$lib/core/bus/isFrameLog';
import { startLiveWorker } from './liveWorker';

const MOST_BYTES = 1_000_000_000;
const KEY = 'file';
const FRAME_SIGNALS = '/library/frame-signals';
const SNIFF_BYTES = 65_536;

export interface KnownFrameSignal extends FrameSignal {
	id: string;
	by: string;
}

async function holdsFrames(file: File): Promise<boolean> {
	const head = file.slice(0, SNIFF_BYTES);
	const packed = file.name.endsWith('.gz');
	const stream = packed ? head.stream().pipeThrough(new DecompressionStream('gzip')) : head.stream();
	const { value } = await stream
		.getReader()
		.read()
		.catch(() => ({ value: undefined }));
	return isFrameLog(new TextDecoder().decode(value));
}

/** One column as a person sees and changes it. */
export interface ColumnChoice extends ColumnGuess {
	sample: string;
}

/** A file of live data on its way in: looked at, asked about where it is not sure, read, saved. Nothing is lost on the way. */
export class Importer {
	step = $state<'none' | 'looking' | 'columns' | 'frames' | 'read' | 'saving'>('none');
	trouble = $state<string | null>(null);
	fileName = $state('');
	columns = $state<ColumnChoice[]>([]);
	/** These columns were told by a person before. */
	remembered = $state(false);
	/** What a frame log holds, and what the shop knows to be in such frames. */
	frames = $state.raw<FramesSeen | null>(null);
	known = $state.raw<KnownFrameSignal[]>([]);
	result = $state.raw<FileRead | null>(null);
	private inspected: Inspected | null = null;
	private mapping: ColumnMapping | null = null;
	private asked = false;
	private bytes = 0;
	private id = ulid();
	private worker: ReturnType<typeof startLiveWorker> | null = null;

	constructor(
		private readonly caseId: string,
		private readonly vehicle: LiveVehicle,
		/** Channels of its wheels. */
		private readonly wheels: readonly string[]
	) {}

	async take(file: File): Promise<void> {
		this.giveUp();
		this.fileName = file.name;
		if (file.size === 0) return this.refuse('It is empty.');
		if (file.size > MOST_BYTES)
			return this.refuse('It has more than 1 GB: cut it to the minutes around the fault.');
		this.step = 'looking';
		this.worker = startLiveWorker();
		if (await holdsFrames(file)) return this.takeFrames(file);
		const looked = await this.worker.remote.inspect(file, [...this.wheels]);
		if ('error' in looked) return this.refuse(looked.error);
		this.inspected = looked;
		this.columns = looked.guesses.map((guess, i) => ({
			...guess,
			sample: looked.sample
				.map((row) => row[i] ?? '')
				.slice(0, 3)
				.join(' · ')
		}));
		const known = await this.memory(looked.key);
		if (known) {
			this.remembered = true;
			this.use(recalledMapping(known, looked.header));
			return this.read();
		}
		const unsure = this.columns.some(({ question }) => question !== null) || mappingOf(this.columns) === null;
		this.asked = unsure;
		if (unsure) this.step = 'columns';
		else await this.read();
	}

	/** Lets a person look at the columns, or the frames, again. */
	askAgain(): void {
		this.asked = true;
		this.step = this.frames ? 'frames' : 'columns';
	}

	private async takeFrames(file: File): Promise<void> {
		const seen = await this.worker?.remote.inspectFrames(file);
		if (!seen || 'error' in seen) return this.refuse(seen?.error ?? 'It could not be read.');
		this.frames = seen;
		this.bytes = file.size;
		const answer = await fetch(FRAME_SIGNALS).catch(() => null);
		if (answer?.ok) this.known = ((await answer.json()) as { signals: KnownFrameSignal[] }).signals;
		this.step = 'frames';
		if (this.fitting.length > 0) await this.readFrames();
	}

	/** The shop's signals whose frames are in this log. */
	get fitting(): KnownFrameSignal[] {
		const ids = this.frames?.ids.map(({ id }) => id) ?? [];
		return this.known.filter(({ frameId }) => ids.includes(frameId));
	}

	async readFrames(): Promise<void> {
		this.trouble = null;
		const read = await this.worker?.remote.readFrames(
			KEY,
			$state.snapshot(this.fitting) as FrameSignal[],
			$state.snapshot(this.vehicle) as LiveVehicle
		);
		if (!read || 'error' in read) {
			this.trouble = read?.error ?? 'It could not be read.';
			this.step = 'frames';
			return;
		}
		this.result = read;
		this.step = 'read';
	}

	/** Keeps or forgets a signal for the whole shop. @returns whether it was taken */
	async changeSignal(
		change: { do: 'keep'; id: string; rule: FrameSignal } | { do: 'forget'; id: string }
	): Promise<boolean> {
		const answer = await fetch(FRAME_SIGNALS, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify(change)
		}).catch(() => null);
		if (!answer?.ok) {
			const said = answer ? ((await answer.json().catch(() => null)) as { message?: string } | null) : null;
			this.trouble = said?.message ?? 'The server cannot be reached. Nothing was changed.';
			return false;
		}
		this.trouble = null;
		this.known = ((await answer.json()) as { signals: KnownFrameSignal[] }).signals;
		return true;
	}

	choose(at: number, as: string | null, unit: string): void {
		this.columns = this.columns.map((column, i) =>
			i === at
				? { ...column, as, unit: unit || null, factor: UNIT_CHOICES[unit] ?? column.factor, question: null }
				: column
		);
	}

	/** Reads the file anew with every wheel in this unit. */
	async readWheelsIn(unit: string): Promise<void> {
		this.asked = true;
		for (const [at, { as }] of this.columns.entries())
			if (as !== null && isWheel(as)) this.choose(at, as, unit);
		await this.read();
	}

	async read(): Promise<void> {
		const remote = this.worker?.remote;
		const mapping = mappingOf(this.columns);
		const channels = mapping?.channels.map(({ channel }) => channel) ?? [];
		if (!mapping || !remote) {
			this.trouble = 'One column must be the time, and at least one a wheel.';
			return;
		}
		const twice = channels.find((channel, i) => channels.indexOf(channel) < i);
		if (twice) {
			this.trouble = `Two columns are taken for ${twice.replaceAll('_', ' ')}: leave one out.`;
			return;
		}
		this.trouble = null;
		this.mapping = mapping;
		const read = await remote.read(
			KEY,
			$state.snapshot(mapping) as ColumnMapping,
			$state.snapshot(this.vehicle) as LiveVehicle
		);
		if ('error' in read) {
			this.trouble = read.error;
			this.step = 'columns';
			return;
		}
		this.result = read;
		this.step = 'read';
	}

	/** @returns the entry's id once it is on the thread */
	async save(name: string): Promise<string | null> {
		const { inspected, mapping, asked } = this;
		const remote = this.worker?.remote;
		if (!remote || (!this.frames && (!inspected || !mapping))) return null;
		this.step = 'saving';
		const about = {
			id: this.id,
			name,
			fileName: this.fileName,
			bytes: inspected?.bytes ?? this.bytes,
			remember:
				asked && inspected && mapping
					? { key: inspected.key, mapping: rememberedMapping(mapping, inspected.header) }
					: null
		};
		const body = await remote.packed(KEY, JSON.stringify($state.snapshot(about)));
		const sent = await outbox.record({
			id: this.id,
			caseId: this.caseId,
			what: `Recording ${this.fileName}`,
			path: `/cases/${this.caseId}/watch/import`,
			type: 'application/octet-stream',
			body
		});
		if (sent.state === 'refused') return this.stays(sent.why);
		if (sent.state === 'waits') {
			toast.info(outbox.keptWords);
			this.giveUp();
			return null;
		}
		const { id } = this;
		this.giveUp();
		return id;
	}

	/** Not saved: what was read stays. */
	private stays(why: string): null {
		this.trouble = `${why} The file is still read here: save it again.`;
		this.step = 'read';
		return null;
	}

	giveUp(): void {
		this.worker?.end();
		this.worker = this.inspected = this.mapping = null;
		[this.step, this.trouble, this.columns, this.result] = ['none', null, [], null];
		[this.remembered, this.asked, this.id] = [false, false, ulid()];
		this.frames = null;
	}

	private refuse(why: string): void {
		this.step = 'none';
		this.trouble = `${this.fileName}: ${why} Nothing was saved.`;
	}

	private use({ time, channels }: ColumnMapping): void {
		this.columns = this.columns.map((column, i) => {
			if (i === time.column) return { ...column, as: 'time', factor: time.factor, question: null };
			const told = channels.find((one) => one.column === i);
			return { ...column, as: told?.channel ?? null, factor: told?.factor ?? null, question: null };
		});
	}

	private async memory(key: string): Promise<ColumnMapping | null> {
		const url = `/cases/${this.caseId}/watch/import?key=${encodeURIComponent(key)}`;
		const answer = await fetch(url).catch(() => null);
		if (!answer?.ok) return null;
		return ((await answer.json()) as { mapping: ColumnMapping | null }).mapping;
	}
}
