import type { LiveVehicle } from '$lib/core/live/analyse';
import type { Alignment } from '$lib/core/live/align';
import type { ConditionOver, NamedCondition } from '$lib/core/live/conditionsOver';
import type { Line } from '$lib/core/live/decimate';
import type { LiveAnalysis } from '$lib/core/live/findings';
import { Span } from '$lib/ui/span.svelte';
import { startLiveWorker } from '../liveWorker';

/** Half of what is drawn: each pixel column has its lowest and its highest. */
const PIXELS = 900;
const MOST_POINTS = 2_000;
const LEAST_S = 0.02;

/** A recording as the page looks at it: its samples stay in a worker, here is the span that is seen and its lines. */
export class RecordingView extends Span {
	trouble = $state<string | null>(null);
	ready = $state(false);
	channels = $state.raw<string[]>([]);
	lines = $state.raw<{ channel: string; line: Line; other: boolean }[]>([]);
	analysis = $state.raw<LiveAnalysis | null>(null);
	conditions = $state.raw<ConditionOver[]>([]);
	/** The recording laid over this one, and by how much it is moved. */
	over = $state.raw<{ id: string; channels: string[]; shiftS: number } | null>(null);
	private readonly worker = startLiveWorker();
	private readonly remote = this.worker.remote;
	private asked = 0;

	constructor(
		private readonly caseId: string,
		private readonly id: string
	) {
		super(LEAST_S);
	}

	async start(vehicle: LiveVehicle, conditions: NamedCondition[]): Promise<void> {
		const loaded = await this.load(this.id);
		if (!loaded) return;
		this.channels = loaded.channels;
		this.open(loaded.fromS, loaded.toS);
		this.ready = true;
		this.analysis = await this.remote.analyse(this.id, vehicle);
		this.conditions = await this.remote.conditions(this.id, conditions);
	}

	close(): void {
		this.worker.end();
	}

	/** Fetches what is drawn of these channels over the span that is seen. */
	async draw(channels: readonly string[]): Promise<void> {
		const mine = ++this.asked;
		const { from, to, over } = this;
		const lines = await this.remote.lines(this.id, [...channels], from, to, this.pixels(channels.length));
		const drawn = channels.map((channel, i) => ({ channel, line: lines[i] as Line, other: false }));
		if (over) {
			const shared = channels.filter((channel) => over.channels.includes(channel));
			const others = await this.remote.lines(
				over.id,
				shared,
				from,
				to,
				this.pixels(channels.length),
				over.shiftS
			);
			drawn.push(...shared.map((channel, i) => ({ channel, line: others[i] as Line, other: true })));
		}
		// A later wish has overtaken this one.
		if (mine === this.asked) this.lines = drawn;
	}

	rows(fromS: number, count: number): Promise<number[][]> {
		return this.remote.rows(this.id, fromS, count);
	}

	async layOver(id: string | null, how: Alignment): Promise<void> {
		if (id === null) {
			this.over = null;
			return;
		}
		const loaded = await this.load(id);
		if (!loaded) return;
		this.over = { id, channels: loaded.channels, shiftS: await this.remote.align(this.id, id, how) };
	}

	private pixels(lines: number): number {
		const all = this.over ? lines * 2 : lines;
		return Math.max(60, Math.min(PIXELS, Math.floor(MOST_POINTS / 2 / Math.max(1, all))));
	}

	private async load(id: string): Promise<{ channels: string[]; fromS: number; toS: number } | null> {
		const response = await fetch(`/cases/${this.caseId}/watch/${id}/samples`).catch(() => null);
		if (!response?.ok) {
			this.trouble = 'The samples cannot be fetched: the server cannot be reached. What was found is below.';
			return null;
		}
		const loaded = await this.remote.load(id, await response.arrayBuffer());
		if ('error' in loaded) {
			this.trouble = `The samples cannot be read: ${loaded.error}.`;
			return null;
		}
		return loaded;
	}
}
