import type { ScopeAnalysis } from '$lib/core/scope/findings';
import { Span } from '$lib/ui/span.svelte';
import type { TraceLane, TraceView } from '$lib/ui/traceDrawing';
import type { CaptureShape, DrawnLine, PictureFilter } from '../../../../../../workers/scope.worker';
import { startScopeWorker } from '../scopeWorker';

const PIXELS = 900;
const LEAST_SPAN_S = 0.0002;
const MARGIN = 0.08;

/** A capture as the page looks at it: samples stay in a worker, here is the span that is seen, its lines and the rulers. */
export class CaptureView extends Span {
	trouble = $state<string | null>(null);
	shape = $state.raw<CaptureShape | null>(null);
	analysis = $state.raw<ScopeAnalysis | null>(null);
	filter = $state<PictureFilter>('none');
	rulers = $state.raw<TraceView['rulers']>(null);
	/** Another capture laid over this one, moved so that the first edges meet. */
	over = $state.raw<{ id: string; shape: CaptureShape; shiftS: number } | null>(null);
	lines = $state.raw<{ own: DrawnLine; other: DrawnLine | null }[]>([]);
	private readonly worker = startScopeWorker();
	private readonly remote = this.worker.remote;
	private asked = 0;

	constructor(
		private readonly caseId: string,
		private readonly id: string
	) {
		super(LEAST_SPAN_S);
	}

	async start(teeth: number | null, firstLookS: number): Promise<void> {
		const shape = await this.load(this.id);
		if (!shape) return;
		this.shape = shape;
		this.open(0, shape.durationS, firstLookS);
		this.analysis = await this.remote.analyse(this.id, teeth);
	}

	close(): void {
		this.worker.end();
	}

	async draw(): Promise<void> {
		const mine = ++this.asked;
		const { shape, over, from, to, filter } = this;
		if (!shape) return;
		const lines = await Promise.all(
			shape.channels.map(async ({ name }, i) => {
				const own = this.remote.line(this.id, name, from, to, PIXELS, filter);
				const theirs = over?.shape.channels.find((one) => one.name === name) ?? over?.shape.channels[i];
				const other =
					over && theirs
						? this.remote.line(over.id, theirs.name, from, to, PIXELS, filter, over.shiftS)
						: null;
				return { own: await own, other: await other };
			})
		);
		// A later wish has overtaken this one.
		if (mine === this.asked) this.lines = lines;
	}

	view(events: readonly (readonly number[])[], words: readonly string[]): TraceView | null {
		const { shape, lines } = this;
		if (!shape) return null;
		const lanes = shape.channels.map(({ name, lowV, highV }, i): TraceLane => {
			const room = Math.max(0.05, (highV - lowV) * MARGIN);
			const line = lines[i];
			return {
				name: words[i] ?? name,
				lowV: lowV - room,
				highV: highV + room,
				traces: [
					...(line ? [{ ...line.own, tone: 'ink' as const }] : []),
					...(line?.other ? [{ ...line.other, tone: 'good' as const }] : [])
				],
				eventsS: events[i] ?? []
			};
		});
		return { fromS: this.from, toS: this.to, lanes, rulers: this.rulers };
	}

	/** Puts the rulers into the middle of what is seen, or takes them away. */
	toggleRulers(): void {
		if (this.rulers || !this.shape) {
			this.rulers = null;
			return;
		}
		const { from, to } = this;
		const [first] = this.shape.channels;
		const [low, high] = [first?.lowV ?? 0, first?.highV ?? 1];
		this.rulers = {
			t: [from + (to - from) * 0.4, from + (to - from) * 0.6],
			v: [low + (high - low) * 0.2, low + (high - low) * 0.8],
			lane: 0
		};
	}

	async layOver(id: string | null): Promise<void> {
		const [channel] = this.shape?.channels ?? [];
		if (id === null || !channel) {
			this.over = null;
			return;
		}
		const shape = await this.load(id);
		const theirs = shape?.channels.find(({ name }) => name === channel.name) ?? shape?.channels[0];
		if (!shape || !theirs) return;
		const [mine, other] = await Promise.all([
			this.remote.firstEdgeS(this.id, channel.name),
			this.remote.firstEdgeS(id, theirs.name)
		]);
		this.over = { id, shape, shiftS: mine - other };
	}

	private async load(id: string): Promise<CaptureShape | null> {
		const response = await fetch(`/cases/${this.caseId}/measure/scope/${id}/samples`).catch(() => null);
		if (!response?.ok) {
			this.trouble =
				'The samples cannot be fetched: the server cannot be reached. What was found stands here.';
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
