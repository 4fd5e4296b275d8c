import { wrap, type Remote } from 'comlink';
import { ulid } from 'ulid';
import type { LiveVehicle } from '$lib/core/live/analyse';
import { mappingOf, UNIT_CHOICES, type ColumnGuess, type ColumnMapping } from '$lib/core/live/columnMapping';
import type { FileRead, Inspected, LiveWorker } from '../../../../workers/live.worker';

const MOST_BYTES = 1_000_000_000;
const KEY = 'file';

/** One column as a person sees and changes it. */
export interface ColumnChoice extends ColumnGuess {
	sample: string;
}

/** A file of live data on its way in: looked at, asked about where it is not sure, read, saved. Nothing is lost on the way. */
export class Importer {
	step = $state<'none' | 'looking' | 'columns' | 'read' | 'saving'>('none');
	trouble = $state<string | null>(null);
	fileName = $state('');
	columns = $state<ColumnChoice[]>([]);
	/** These columns were told by a person before. */
	remembered = $state(false);
	result = $state.raw<FileRead | null>(null);
	private inspected: Inspected | null = null;
	private mapping: ColumnMapping | null = null;
	private asked = false;
	private id = ulid();
	private worker: Worker | null = null;
	private remote: Remote<LiveWorker> | null = null;

	constructor(
		private readonly caseId: string,
		private readonly vehicle: LiveVehicle
	) {}

	async take(file: File): Promise<void> {
		this.giveUp();
		this.fileName = file.name;
		if (file.size === 0) return this.refuse('It is empty.');
		if (file.size > MOST_BYTES)
			return this.refuse('It has more than 1 GB: cut it to the minutes around the fault.');
		this.step = 'looking';
		this.worker = new Worker(new URL('../../../../workers/live.worker.ts', import.meta.url), {
			type: 'module'
		});
		this.remote = wrap<LiveWorker>(this.worker);
		const looked = await this.remote.inspect(file);
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
			this.use(known);
			return this.read();
		}
		const unsure = this.columns.some(({ question }) => question !== null) || mappingOf(this.columns) === null;
		this.asked = unsure;
		if (unsure) this.step = 'columns';
		else await this.read();
	}

	/** Lets a person look at the columns again. */
	askAgain(): void {
		this.asked = true;
		this.step = 'columns';
	}

	choose(at: number, as: string | null, unit: string): void {
		this.columns = this.columns.map((column, i) =>
			i === at
				? { ...column, as, unit: unit || null, factor: UNIT_CHOICES[unit] ?? column.factor, question: null }
				: column
		);
	}

	async read(): Promise<void> {
		const { remote } = this;
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
		const { remote, inspected, mapping, asked } = this;
		if (!remote || !inspected || !mapping) return null;
		this.step = 'saving';
		const about = {
			id: this.id,
			name,
			fileName: this.fileName,
			bytes: inspected.bytes,
			remember: asked ? { key: inspected.key, mapping } : null
		};
		const body = await remote.packed(KEY, JSON.stringify($state.snapshot(about)));
		const answer = await fetch(`/cases/${this.caseId}/watch/import`, {
			method: 'POST',
			headers: { 'content-type': 'application/octet-stream' },
			body
		}).catch(() => null);
		if (!answer?.ok) {
			const said = answer ? ((await answer.json().catch(() => null)) as { message?: string } | null) : null;
			this.trouble =
				said?.message ?? 'The server cannot be reached. The file is still read here: save it again.';
			this.step = 'read';
			return null;
		}
		const { id } = this;
		this.giveUp();
		return id;
	}

	giveUp(): void {
		this.worker?.terminate();
		this.worker = this.remote = this.inspected = this.mapping = null;
		[this.step, this.trouble, this.columns, this.result] = ['none', null, [], null];
		[this.remembered, this.asked, this.id] = [false, false, ulid()];
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
