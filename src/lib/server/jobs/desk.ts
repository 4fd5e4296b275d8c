import type { Logger } from 'pino';
import {
	ENTRY_VERSION,
	EntryDraft,
	type EntryKind,
	type NetworkScan,
	type PayloadOf
} from '../../case/entry';
import type { JobStatus } from '../../case/jobStatus';
import type { ClearTarget } from '../../case/mayClear';
import { fail, ok, type Result } from '../../core/result';
import { vehicleTypes } from '../../../../library';
import type { LiveSignal } from '../../../../library/liveSignals';
import type { LiveMark } from '../../case/livePayloads';
import type { CaseRow, Cases } from '../db/cases';
import type { Database } from '../db/open';
import type { Author, Threads } from '../db/threads';
import { Captures } from '../db/captures';
import { DoipLink } from '../link/doipLink';
import type { LinkError, VehicleLink } from '../link/vehicleLink';
import { calibrate } from './calibrate/calibrate';
import type { CalibrationOrder } from './calibrate/order';
import { clearModules } from './clear';
import { JobNotes } from './jobNotes';
import { checkKeyCycle } from './keyCheck';
import { calibrationOutcome, clearOutcome, codesFound, scanOutcome } from './outcome';
import type { LiveBatch, Recorder } from './recorder';
import { Recordings, type TestsOf } from './recordings';
import { readIdentity, scanVehicle } from './scan';

interface Job {
	status: JobStatus;
	recorder: Recorder | null;
	address: string;
	authorId: string;
	cancelled: boolean;
	/** Whether it can be cut short without harm. */
	stoppable: boolean;
}

type Open = (address: string) => Promise<Result<VehicleLink, LinkError>>;

/**
 * The one place that talks to vehicles: at most one piece of work on a vehicle at a time, progress for whoever watches,
 * everything written down as it goes, and an entry on the thread at the end – also of what was cut short.
 */
export class LinkDesk {
	private readonly notes: JobNotes;
	readonly captures: Captures;
	private readonly recordings: Recordings;
	private readonly byCase = new Map<string, Job>();
	private readonly busy = new Map<string, Job>();
	private readonly watchers = new Map<string, Set<(status: JobStatus) => void>>();

	constructor(
		db: Database,
		private readonly threads: Threads,
		private readonly cases: Cases,
		private readonly log: Logger,
		private readonly open: Open = (address) => DoipLink.open(address),
		testsOf: TestsOf = () => Promise.resolve([])
	) {
		this.notes = new JobNotes(db);
		this.captures = new Captures(db);
		this.recordings = new Recordings(
			this.captures,
			cases,
			log,
			(caseId, author, id, payload, observedAt) =>
				this.store(caseId, author, id, 'live-recording', payload, observedAt),
			testsOf
		);
	}

	status(caseId: string): JobStatus | null {
		return this.byCase.get(caseId)?.status ?? null;
	}

	watch(caseId: string, onChange: (status: JobStatus) => void): () => void {
		const set = this.watchers.get(caseId) ?? new Set();
		set.add(onChange);
		this.watchers.set(caseId, set);
		return () => {
			set.delete(onChange);
			if (set.size === 0) this.watchers.delete(caseId);
		};
	}

	/** Asks the running scan to stop after the module it is at. A clear is never stopped half way. */
	cancel(caseId: string): Result<null> {
		const job = this.byCase.get(caseId);
		if (!job || job.status.state !== 'running') return fail('Nothing is running.');
		if (!job.stoppable) return fail('What changes a module is not stopped half way.');
		job.cancelled = true;
		return ok(null);
	}

	startScan(row: CaseRow, author: Author, entryId: string): Result<JobStatus> {
		const type = vehicleTypes.get(row.vehicle.typeId);
		if (!type) return fail(NOT_DESCRIBED);
		return this.begin(row, author, entryId, 'scan', type.modules.length, async (job, link) => {
			const scan = await scanVehicle(link, type, {
				begins: (name) => this.tell(job, { now: name }),
				sofar: async (soFar) => {
					await this.notes.write(noteOf(job), 'scan', soFar);
					const last = soFar.modules.at(-1);
					if (last) this.tick(job, last.name, last.answered ? codesFound(last.codes.length) : 'silent');
				},
				cancelled: () => job.cancelled
			});
			await this.put(row.id, author, entryId, 'network-scan', scan);
			return scanOutcome(scan);
		});
	}

	startClear(row: CaseRow, author: Author, entryId: string, targets: ClearTarget[]): Result<JobStatus> {
		const type = vehicleTypes.get(row.vehicle.typeId);
		if (!type) return fail(NOT_DESCRIBED);
		return this.begin(row, author, entryId, 'clear', targets.length, async (job, link) => {
			this.tell(job, { now: 'Gateway' });
			const { keyCycles } = await readIdentity(link, type.gateway);
			const cleared = await clearModules(link, targets, keyCycles, async (soFar) => {
				await this.notes.write(noteOf(job), 'clear', soFar);
				const asked = soFar.modules.filter((m) => m.outcome !== 'unknown' || m.detail !== 'Not asked yet.');
				this.tell(job, {
					now: asked.at(-1)?.name ?? null,
					done: asked.map((m) => ({ name: m.name, note: m.outcome }))
				});
			});
			await this.put(row.id, author, entryId, 'codes-cleared', cleared);
			return clearOutcome(cleared);
		});
	}

	/** Has the vehicle itself confirm that its key was turned since the clear. */
	startKeyCheck(
		row: CaseRow,
		author: Author,
		entryId: string,
		countBefore: number | null
	): Result<JobStatus> {
		const type = vehicleTypes.get(row.vehicle.typeId);
		if (!type) return fail(NOT_DESCRIBED);
		return this.begin(row, author, entryId, 'key', 1, async (job, link) => {
			this.tell(job, { now: 'Gateway' });
			const cycled = await checkKeyCycle(link, type.gateway, countBefore);
			if (!cycled.ok) throw new JobTrouble(cycled.error);
			await this.put(row.id, author, entryId, 'key-cycled', cycled.value);
			return `Key cycle ${cycled.value.countAfter} counted by the gateway; saved on the thread.`;
		});
	}

	/** Has a module told or taught what it needs. What was begun is written down, whatever came of it. */
	startCalibration(
		row: CaseRow,
		author: Author,
		entryId: string,
		order: Omit<CalibrationOrder, 'type'>
	): Result<JobStatus> {
		const type = vehicleTypes.get(row.vehicle.typeId);
		if (!type) return fail(NOT_DESCRIBED);
		const { way } = order.placed.calibration;
		const steps =
			way.kind === 'drive' ? way.phases.length : way.kind === 'write' ? way.identifiers.length : 1;
		return this.begin(row, author, entryId, 'calibrate', steps, async (job, link) => {
			job.stoppable = way.kind === 'drive';
			this.tell(job, { subject: order.placed.id });
			const tried = await calibrate(
				link,
				{ ...order, type },
				{
					tell: (now, done) => this.tell(job, { now, done }),
					sofar: (soFar) => this.notes.write(noteOf(job), 'calibrate', soFar),
					cancelled: () => job.cancelled
				}
			);
			if (!tried.ok) throw new JobTrouble(tried.error);
			await this.put(row.id, author, entryId, 'calibration', tried.value);
			return calibrationOutcome(tried.value);
		});
	}

	/**
	 * Records live data until {@link cancel} or until the line is lost; everything taken by then is kept.
	 *
	 * @param listenTo addresses of modules that are asked for their codes meanwhile
	 */
	startRecording(
		row: CaseRow,
		author: Author,
		entryId: string,
		signals: readonly LiveSignal[],
		name: string,
		listenTo: readonly string[] = []
	): Result<JobStatus> {
		return this.begin(row, author, entryId, 'record', signals.length, async (job, link) => {
			const ended = await this.recordings.record(
				link,
				{ id: entryId, row, author, name, signals, listenTo },
				(recorder) => {
					job.recorder = recorder;
					return () => job.cancelled;
				}
			);
			if (!ended.ok) throw new JobTrouble(ended.error);
			return ended.value;
		});
	}

	/** Sets a mark at this moment of the running recording. */
	mark(caseId: string, label: string): Result<LiveMark> {
		const job = this.byCase.get(caseId);
		const mark = job?.status.state === 'running' ? job.recorder?.mark(label) : null;
		return mark ? ok(mark) : fail('Nothing is being recorded, or it has as many marks as it can hold.');
	}

	/** Seconds that the running recording has come to; null where none runs. */
	recordedS(caseId: string): number | null {
		const job = this.byCase.get(caseId);
		return job?.status.state === 'running' ? (job.recorder?.lastS ?? null) : null;
	}

	/** The running recording's readings after a time, then as they come; null where none runs. */
	watchLive(caseId: string, onBatch: (batch: LiveBatch) => void, afterS: number): (() => void) | null {
		const job = this.byCase.get(caseId);
		return job?.status.state === 'running' ? (job.recorder?.watch(onBatch, afterS) ?? null) : null;
	}

	/** Puts what a stopped server left half done on its threads. Run once, before anything else is begun. */
	async recover(): Promise<number> {
		const left = await this.notes.left();
		for (const { id, caseId, kind, author, draft } of left) {
			if (kind === 'clear') {
				await this.put(caseId, author, id, 'codes-cleared', draft as PayloadOf<'codes-cleared'>);
			} else if (kind === 'calibrate')
				await this.put(caseId, author, id, 'calibration', draft as PayloadOf<'calibration'>);
			else {
				const scan = draft as NetworkScan;
				const cut = { ...scan, stoppedBecause: 'The server stopped during the scan.' };
				if (scan.modules.length > 0) await this.put(caseId, author, id, 'network-scan', cut);
			}
			await this.notes.forget(id);
		}
		return left.length + (await this.recordings.recover());
	}

	private begin(
		row: CaseRow,
		author: Author,
		entryId: string,
		kind: JobStatus['kind'],
		total: number,
		work: (job: Job, link: VehicleLink) => Promise<string>
	): Result<JobStatus> {
		const address = row.vehicle.linkAddress;
		if (!address) return fail('No interface is set for this vehicle: give its address on Read.');
		const running = this.busy.get(address);
		if (running?.status.id === entryId) return ok(running.status);
		if (running)
			return fail(
				`${running.status.by} is at this vehicle now (${WORDS[running.status.kind]}). Wait until that is done.`
			);
		const job: Job = {
			address,
			authorId: author.id,
			cancelled: false,
			stoppable: kind === 'scan' || kind === 'record',
			recorder: null,
			status: {
				id: entryId,
				caseId: row.id,
				kind,
				subject: null,
				by: author.name,
				now: null,
				done: [],
				total,
				state: 'running',
				outcome: null
			}
		};
		this.busy.set(address, job);
		this.byCase.set(row.id, job);
		// Whoever has the case open elsewhere sees that it began.
		this.tell(job, {});
		void this.run(job, work);
		return ok(job.status);
	}

	private async run(job: Job, work: (job: Job, link: VehicleLink) => Promise<string>) {
		let link: VehicleLink | null = null;
		try {
			const opened = await this.open(job.address);
			if (!opened.ok) throw new JobTrouble(`${opened.error.text} Nothing was read and nothing was changed.`);
			link = opened.value;
			const outcome = await work(job, link);
			this.tell(job, { state: 'finished', now: null, outcome });
		} catch (error) {
			const known = error instanceof JobTrouble;
			if (!known)
				this.log.error(
					{ err: error, caseId: job.status.caseId, job: job.status.kind },
					'work on a vehicle failed'
				);
			const outcome = known
				? error.message
				: 'Something went wrong on the server. What was read until then is kept.';
			this.tell(job, { state: 'failed', now: null, outcome });
		} finally {
			link?.close();
			this.busy.delete(job.address);
			if (job.status.state === 'finished') await this.notes.forget(job.status.id);
		}
	}

	private async put<K extends EntryKind>(
		caseId: string,
		author: Author,
		id: string,
		kind: K,
		payload: PayloadOf<K>
	) {
		const stored = await this.store(caseId, author, id, kind, payload, new Date().toISOString());
		if (!stored.ok) throw new JobTrouble(stored.error);
	}

	private async store<K extends EntryKind>(
		caseId: string,
		author: Author,
		id: string,
		kind: K,
		payload: PayloadOf<K>,
		observedAt: string
	): Promise<Result<null>> {
		const draft = EntryDraft.parse({
			id,
			caseId,
			kind,
			version: ENTRY_VERSION,
			observedAt,
			supersedes: null,
			payload
		});
		const stored = await this.threads.append(draft, author);
		if (!stored.ok) return fail(stored.error.text);
		await this.cases.refresh(caseId);
		return ok(null);
	}

	private tick(job: Job, name: string, note: string): void {
		this.tell(job, { done: [...job.status.done, { name, note }] });
	}

	private tell(job: Job, change: Partial<JobStatus>): void {
		job.status = { ...job.status, ...change };
		for (const watcher of this.watchers.get(job.status.caseId) ?? []) watcher(job.status);
	}
}

const NOT_DESCRIBED =
	'The library holds no description of this vehicle’s network, so nobody knows whom to ask.';

/** Trouble that the person can be told as it is. */
class JobTrouble extends Error {}

const WORDS = {
	scan: 'reading its modules',
	clear: 'clearing codes',
	key: 'checking the key',
	record: 'recording live data',
	calibrate: 'teaching a module'
} as const;

const noteOf = ({ status, authorId }: Job) => ({ id: status.id, caseId: status.caseId, authorId });
