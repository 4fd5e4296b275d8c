import type { Logger } from 'pino';
import type { LiveRecording } from '../../case/livePayloads';
import type { NamedCondition } from '../../core/live/conditionsOver';
import { isNotAvailable } from '../../core/live/recording';
import { fail, ok, type Result } from '../../core/result';
import { vehicleTypes } from '../../../../library';
import type { LiveSignal } from '../../../../library/liveSignals';
import type { Captures } from '../db/captures';
import type { CaseRow, Cases } from '../db/cases';
import type { Author } from '../db/threads';
import type { VehicleLink } from '../link/vehicleLink';
import { CodeListener } from './codeListener';
import { liveVehicleOf, Recorder, recordingPayload } from './recorder';
import { sample } from './sampler';

/** What is to be recorded, for whom. */
interface Wanted {
	/** Also the id of the entry it makes. */
	id: string;
	row: CaseRow;
	author: Author;
	name: string;
	signals: readonly LiveSignal[];
	/** Modules that are asked for their codes all the while; none where nobody wants to know. */
	listenTo: readonly string[];
}

/** What the tests of a case's codes need, named `address/dtc`. */
export type TestsOf = (caseId: string) => Promise<NamedCondition[]>;

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
		private readonly testsOf: TestsOf
	) {}

	/**
	 * Records until it is stopped or the line is lost.
	 *
	 * @param begun is handed the recorder; gives back how to learn that a person stopped it
	 * @returns what came of it, in words
	 */
	async record(
		link: VehicleLink,
		{ id, row, author, name, signals, listenTo }: Wanted,
		begun: (recorder: Recorder) => () => boolean
	): Promise<Result<string>> {
		const startedAt = new Date().toISOString();
		await this.captures.begin({ id, caseId: row.id, authorId: author.id, name, startedAt });
		const listener = new CodeListener(link, listenTo);
		const speedAt = signals.findIndex(({ signal }) => signal === 'vehicle');
		const recorder = new Recorder(
			id,
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
			await this.captures.forget(id);
			return fail(`${lost ?? 'It was stopped at once.'} There was nothing to keep.`);
		}
		const payload = recordingPayload(
			samples,
			this.vehicleOf(row),
			{
				name,
				source: { kind: 'vehicle' },
				marks: recorder.marks,
				endedBecause: lost,
				...(listenTo.length > 0 ? { heard: listener.heard } : {})
			},
			await this.testsOf(row.id)
		);
		const stored = await this.store(row.id, author, id, payload, startedAt);
		await this.captures.finish(id, samples);
		if (!stored.ok) return stored;
		const byItself = lost ? ` It ended by itself: ${lost}` : '';
		return ok(
			`${samples.timeS.length} readings over ${payload.durationS.toFixed(0)} s, saved on the thread.${byItself}`
		);
	}

	/** Ends what a stopped server left open. @returns how many those were */
	async recover(): Promise<number> {
		const left = await this.captures.left(new Date().toISOString());
		for (const { id, caseId, author, name, startedAt, marks } of left) {
			const samples = await this.captures.read(id);
			if (!samples || samples.timeS.length < FEWEST_ROWS) {
				await this.captures.forget(id);
				continue;
			}
			const payload = recordingPayload(
				samples,
				this.vehicleOf(await this.cases.find(caseId)),
				{
					name,
					source: { kind: 'vehicle' },
					marks,
					endedBecause: 'The server stopped while it was recorded.'
				},
				await this.testsOf(caseId)
			);
			const stored = await this.store(caseId, author, id, payload, startedAt);
			// A case signed meanwhile takes no more entries; its samples stay where they are.
			if (!stored.ok) this.log.warn({ caseId, capture: id }, stored.error);
			await this.captures.finish(id, samples);
		}
		return left.length;
	}

	private vehicleOf(row: CaseRow | null | undefined) {
		const type = row ? vehicleTypes.get(row.vehicle.typeId) : undefined;
		return type && liveVehicleOf(type);
	}
}
