import type { DriveGoal } from '$lib/case/proof/provingDrive';
import { RoadProgress, type LegProgress, type RoadLeg } from '$lib/core/live/roadTest';
import { mergeBands } from '$lib/core/prove/drivenBands';
import { Odometer, type Driven } from '$lib/core/prove/odometer';

interface KeptDrive {
	covered: readonly string[];
	/** By recording: one drive may take several. */
	parts: Record<string, Driven>;
}
const NOTHING: Driven = { km: 0, topKmh: 0, stops: 0, seconds: 0, bands: [] };
const both = (a: Driven, b: Driven): Driven => ({
	km: a.km + b.km,
	topKmh: Math.max(a.topKmh, b.topKmh),
	stops: a.stops + b.stops,
	seconds: a.seconds + b.seconds,
	bands: mergeBands(a.bands, b.bands)
});
/** A part as an earlier version of this page kept it has no bands. */
const whole = (part: Driven): Driven => ({ ...part, bands: part.bands ?? [] });

/** How far a proving drive is, kept on this device as it goes. */
export class ProvingDrive {
	legs = $state.raw<LegProgress[]>([]);
	private parts = $state.raw<Readonly<Record<string, Driven>>>({});
	/** What is not yet on the thread, from this tab or another. */
	private readonly fresh = $derived(
		Object.entries(this.parts).filter(([recording]) => !this.counted().includes(recording))
	);
	readonly driven = $derived(this.fresh.map(([, part]) => whole(part)).reduce(both, NOTHING));
	readonly recordings = $derived(this.fresh.map(([recording]) => recording));
	/** Goals that were covered, also before a reload. */
	covered = $state.raw<readonly string[]>([]);
	private progress: RoadProgress;
	private odometer = new Odometer();
	private recording: string | null = null;
	private count = 0;

	constructor(
		private readonly goals: readonly DriveGoal[],
		private readonly key: string,
		private readonly counted: () => readonly string[]
	) {
		this.progress = new RoadProgress(this.asLegs());
		this.legs = this.progress.progress;
		try {
			const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as KeptDrive | null;
			if (kept) {
				this.covered = kept.covered;
				this.parts = kept.parts;
			}
		} catch {
			localStorage.removeItem(key);
		}
	}

	private asLegs(): RoadLeg[] {
		return this.goals.map(({ name, words, condition }) => ({
			id: name,
			says: words,
			why: '',
			condition,
			needS: 0,
			needTimes: 1
		}));
	}

	/** One reading of the running recording, by channel. */
	take(recording: string | null, timeS: number, values: ReadonlyMap<string, number>): void {
		// What was put on the thread is told again after a reload, and counts once.
		if (recording === null || this.counted().includes(recording)) return;
		if (recording !== this.recording) {
			this.recording = recording;
			this.progress = new RoadProgress(this.asLegs());
			this.odometer = new Odometer();
		}
		this.progress.sample(timeS, values);
		this.odometer.sample(timeS, values.get('vehicle') ?? null, values.get('steering') ?? null);
		if (this.count++ % 5 !== 0) return;
		this.legs = this.progress.progress;
		this.parts = { ...this.parts, [recording]: this.odometer.driven };
		const now = this.legs.filter(({ done }) => done >= 1).map(({ id }) => id);
		this.covered = [...this.covered, ...now.filter((id) => !this.covered.includes(id))];
		localStorage.setItem(
			this.key,
			JSON.stringify({ covered: this.covered, parts: this.parts } satisfies KeptDrive)
		);
	}

	forget(): void {
		localStorage.removeItem(this.key);
		this.covered = [];
		this.parts = {};
	}
}
