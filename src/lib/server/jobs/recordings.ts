import type { Logger } from 'pino';
import type { LiveRecording, Purpose } from '../../case/entries/live-recording/payload';
import type { NamedCondition } from '../../core/live/conditionsOver';
import { isNotAvailable } from '../../core/live/recording';
import { fail, ok, type Result } from '../../core/result';
import type { LiveSignal } from '../../../../library/liveSignals';
import type { Captures, OpenCapture } from '../db/captures';
import type { CaseRow, Cases } from '../db/cases';
import type { Author } from '../db/threads';
import type { VehicleLink } from '../../link/vehicleLink';
import { CodeListener } from './codeListener';
import { liveVehicleOf } from '../../case/watch/recordingPayload';
import { Recorder } from './recorder';
import type { endedRecording } from './recordingWork';
import { sample } from './sampler';

/** What is to be recorded, for whom. */
interface Wanted {
	/** Also the id of the entry it makes. */
	id: string;
	row: CaseRow;
	author: Author;
	name: string;
	purpose: Purpose | null;
	signals: readonly LiveSignal[];
	/** Modules that are asked for their codes all the while; none where nobody wants to know. */
	listenTo: readonly string[];
}

/** What the tests of a case's codes need, named `address/dtc`. */
export type TestsOf = (caseId: string) => Promise<NamedCondition[]>;

/** Analyses what was recorded, wherever there is a hand free for it. */
export type EndRecording = (
	input: Parameters<typeof endedRecording>[0]
) => Promise<ReturnType<typeof endedRecording>>;

type PutAside = (
	one: { id: string; caseId: string; kind: 'record'; author: Author; draft: LiveRecording },
	why: string
) => Promise<void>;

type Store = (
	caseId: string,
	author: Author,
	id: string,
	payload: LiveRecording,
	observedAt: string
) => Promise<Result<null>>;

const speedOf = (kmh: number | undefined): number | null =>
	kmh === undefined || Number.isNaN(kmh) || isNotAvailable(kmh) ? null : kmh;

/** Fewer tell nothing. */
const FEWEST_ROWS = 2;

/** Recordings from their first reading to the entry on the thread, also those that a stopped server left open. */
export class Recordings {
	constructor(
		private readonly captures: Captures,
		private readonly cases: Cases,
		private readonly log: Logger,
		private readonly store: Store,
		private readonly testsOf: TestsOf,
		private readonly putAside: PutAside,
		private readonly ended: EndRecording
	) {}

	/**
	 * Records until it is stopped or the line is lost.
	 *
	 * @param begun is handed the recorder; gives back how to learn that a person stopped it
	 * @returns what came of it, in words
	 */
	async record(
		link: VehicleLink,
		{ id, row, author, name, purpose, signals, listenTo }: Wanted,
		begun: (recorder: Recorder) => () => boolean
	): Promise<Result<string>> {
		const startedAt = new Date().toISOString();
		const own = { id, caseId: row.id };
		const opened = await this.captures.begin({ ...own, authorId: author.id, name, purpose, startedAt });
		if (!opened.ok) return opened;
		const listener = new CodeListener(link, listenTo);
		const speedAt = signals.findIndex(({ signal }) => signal === 'vehicle');
		const recorder = new Recorder(
			own,
			signals.map(({ signal }) => signal),
			this.captures,
			listener.heard
		);
		const stopped = begun(recorder);
		const lost = await sample(link, signals, {
			nowMs: () => performance.now(),
			stopped,
			row: (timeS, values) => recorder.take(timeS, values),
			between: (timeS, values) => listener.ask(timeS, speedOf(values[speedAt]))
		}).finally(() => recorder.stop());
		const samples = await recorder.end();
		if (samples.timeS.length < FEWEST_ROWS) {
			await this.captures.forget(own);
			return fail(`${lost ?? 'It was stopped at once.'} There was nothing to keep.`);
		}
		const { payload, pieces } = await this.ended({
			samples,
			vehicle: this.vehicleOf(row),
			about: {
				name,
				...(purpose ? { purpose } : {}),
				source: { kind: 'vehicle' },
				marks: recorder.marks,
				endedBecause: lost,
				...(listenTo.length > 0 ? { heard: listener.heard } : {})
			},
			tests: await this.testsOf(row.id)
		});
		const stored = await this.store(row.id, author, id, payload, startedAt);
		await this.captures.finish(own, pieces);
		if (!stored.ok) return stored;
		const byItself = lost ? ` It ended by itself: ${lost}` : '';
		return ok(
			`${samples.timeS.length} readings over ${payload.durationS.toFixed(0)} s, saved to the case.${byItself}`
		);
	}

	/** Ends what a stopped server left open. @returns how many those were */
	async recover(): Promise<number> {
		const left = await this.captures.left(new Date().toISOString());
		for (const one of left) {
			// One that cannot be ended keeps neither the others nor the server from going on.
			await this.end(one).catch((error: unknown) =>
				this.log.error({ err: error, caseId: one.caseId, capture: one.id }, 'a recording could not be ended')
			);
		}
		return left.length;
	}

	private async end({ id, caseId, author, name, purpose, startedAt, marks }: OpenCapture): Promise<void> {
		const own = { id, caseId };
		const samples = await this.captures.read(own);
		if (!samples || samples.timeS.length < FEWEST_ROWS) return this.captures.forget(own);
		const { payload, pieces } = await this.ended({
			samples,
			vehicle: this.vehicleOf(await this.cases.find(caseId)),
			about: {
				name,
				...(purpose ? { purpose } : {}),
				source: { kind: 'vehicle' },
				marks,
				endedBecause: 'The server stopped while it was recorded.'
			},
			tests: await this.testsOf(caseId)
		});
		const stored = await this.store(caseId, author, id, payload, startedAt);
		// What its thread does not take stays on disk, whole, and is shown to a lead.
		if (!stored.ok) await this.putAside({ ...own, kind: 'record', author, draft: payload }, stored.error);
		await this.captures.finish(own, pieces);
	}

	private vehicleOf(row: CaseRow | null | undefined) {
		return row?.type ? liveVehicleOf(row.type) : undefined;
	}
}
