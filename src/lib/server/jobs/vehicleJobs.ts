import type { Logger } from 'pino';
import { z } from 'zod';
import { ENTRY_VERSION, EntryDraft, type EntryKind, type PayloadOf } from '../../case/entries/entry';
import { type NetworkScan } from '../../case/entries/network-scan/payload';
import { Ulid } from '../../case/entries/fields';
import type { JobStatus } from '../../case/progress/jobStatus';
import type { ClearTarget } from '../../case/codes/mayClear';
import { fail, ok, type Result } from '../../core/result';
import type { LiveSignal } from '../../../../library/liveSignals';
import { purposeKey, type LiveMark, type Purpose } from '../../case/entries/live-recording/payload';
import type { CaseRow, Cases } from '../db/cases';
import type { Database } from '../db/open';
import type { Author, Threads } from '../db/threads';
import type { VehicleHolds } from '../db/vehicleHolds';
import type { Captures } from '../db/captures';
import { linkRoutesOf, modulesToAsk, type Over } from '../../../../library/vehicle/linkRoutes';
import type { VehicleType } from '../../../../library';
import { findModules } from '../../link/findModules';
import { parseLinkAddress } from '../../link/linkAddress';
import { openLink } from '../../link/openLink';
import { trouble, type LinkError, type VehicleLink } from '../../link/vehicleLink';
import { calibrate } from './calibrate/calibrate';
import type { CalibrationOrder } from './calibrate/order';
import { clearModules, hasBegun, wasAsked } from './clear';
import { JobNotes, type Unfinished } from './jobNotes';
import { checkKeyCycle } from './keyCheck';
import { calibrationOutcome, clearOutcome, codesFound, findOutcome, scanOutcome } from './outcome';
import type { LiveBatch, Recorder } from './recorder';
import { Recordings, type EndRecording, type TestsOf } from './recordings';
import { endedRecording } from './recordingWork';
import { readIdentity, scanVehicle } from '../../link/scan';

interface Job {
	status: JobStatus;
	recorder: Recorder | null;
	address: string;
	authorId: string;
	cancelled: boolean;
	/** Whether it can be cut short without harm. */
	stoppable: boolean;
	/** Resolves when it is over and nothing of it is left to do. */
	ended: Promise<void>;
}

export type Open = (address: string, type: VehicleType | null) => Promise<Result<VehicleLink, LinkError>>;

/** Opens the way to a vehicle wherever its address says. */
export const openAnywhere: Open = async (address, type) => {
	const place = parseLinkAddress(address);
	return place.ok
		? openLink(place.value, type ? linkRoutesOf(type) : undefined)
		: fail(trouble('refused', place.error));
};

/**
 * The one place that talks to vehicles: at most one piece of work on a vehicle at a time, progress for whoever watches,
 * everything written down as it goes, and an entry on the thread at the end – also of what was cut short.
 */
export class VehicleJobs {
	private readonly notes: JobNotes;
	private readonly recordings: Recordings;
	private readonly byCase = new Map<string, Job>();
	/** By the address of the vehicle's interface. */
	private readonly busy = new Map<string, Job>();
	private readonly watchers = new Map<string, Set<(status: JobStatus) => void>>();

	constructor(
		db: Database,
		private readonly threads: Threads,
		private readonly cases: Cases,
		captures: Captures,
		private readonly log: Logger,
		private readonly holds: VehicleHolds,
		private readonly open: Open = openAnywhere,
		testsOf: TestsOf = () => Promise.resolve([]),
		ended: EndRecording = (input) => Promise.resolve(endedRecording(input))
	) {
		this.notes = new JobNotes(db);
		this.recordings = new Recordings(
			captures,
			cases,
			log,
			(caseId, author, id, payload, observedAt) =>
				this.store(caseId, author, id, 'live-recording', payload, observedAt),
			testsOf,
			(one, why) => this.notes.putAside(one, why),
			ended
		);
	}

	/** What runs on a vehicle now, on whatever case; null where nothing does. */
	runningOn(linkAddress: string | null): JobStatus | null {
		return (linkAddress !== null && this.busy.get(linkAddress)?.status) || null;
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

	/** Ends what runs, for a server that stops: recordings are kept, readings cut short, a clear is waited for. */
	async stop(): Promise<void> {
		const jobs = [...this.busy.values()];
		for (const job of jobs) if (job.stoppable) job.cancelled = true;
		await Promise.all(jobs.map((job) => job.ended));
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
		const type = row.type;
		if (!type) return fail(NOT_DESCRIBED);
		const asked = modulesToAsk(type, overOf(row)).length;
		if (asked === 0) return fail(NOBODY_KNOWS_WHERE);
		return this.begin(row, author, entryId, 'scan', asked, async (job, link) => {
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

	/** Asks who is there at the vehicle's interface, and each what it is. */
	startFind(row: CaseRow, author: Author, entryId: string): Result<JobStatus> {
		return this.begin(row, author, entryId, 'find', 0, async (job, link) => {
			this.tell(job, { now: 'everybody' });
			const found = await findModules(link, {
				begins: (address) => this.tell(job, { now: address }),
				sofar: async (soFar) => {
					await this.notes.write(noteOf(job), 'find', soFar);
					const last = soFar.modules.at(-1);
					if (last) this.tick(job, last.name ?? last.address, last.silent === null ? 'there' : 'silent');
				},
				cancelled: () => job.cancelled
			});
			if (!found.ok) throw new JobTrouble(`${found.error.text} Nothing was changed.`);
			if (found.value.modules.length === 0)
				throw new JobTrouble('No module answers. Is the key on, and is that the speed of its bus?');
			await this.put(row.id, author, entryId, 'modules-found', found.value);
			return findOutcome(found.value);
		});
	}

	startClear(row: CaseRow, author: Author, entryId: string, targets: ClearTarget[]): Result<JobStatus> {
		const type = row.type;
		if (!type) return fail(NOT_DESCRIBED);
		return this.begin(row, author, entryId, 'clear', targets.length, async (job, link) => {
			this.tell(job, { now: 'Gateway' });
			const { keyCycles } = await readIdentity(link, type.gateway);
			const cleared = await clearModules(link, targets, keyCycles, async (soFar) => {
				await this.notes.write(noteOf(job), 'clear', soFar);
				const asked = soFar.modules.filter(wasAsked);
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
		const type = row.type;
		if (!type) return fail(NOT_DESCRIBED);
		return this.begin(row, author, entryId, 'key', 1, async (job, link) => {
			this.tell(job, { now: 'Gateway' });
			const cycled = await checkKeyCycle(link, type.gateway, countBefore);
			if (!cycled.ok) throw new JobTrouble(cycled.error);
			await this.put(row.id, author, entryId, 'key-cycled', cycled.value);
			return `Key cycle ${cycled.value.countAfter} counted by the gateway; saved to the case.`;
		});
	}

	/** Has a module told or taught what it needs. What was begun is written down, whatever came of it. */
	startCalibration(
		row: CaseRow,
		author: Author,
		entryId: string,
		order: Omit<CalibrationOrder, 'type'>
	): Result<JobStatus> {
		const type = row.type;
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
	 * @param about.listenTo addresses of modules that are asked for their codes meanwhile
	 */
	startRecording(
		row: CaseRow,
		author: Author,
		entryId: string,
		signals: readonly LiveSignal[],
		{ name, purpose, listenTo }: { name: string; purpose: Purpose | null; listenTo: readonly string[] }
	): Result<JobStatus> {
		return this.begin(row, author, entryId, 'record', signals.length, async (job, link) => {
			this.tell(job, { subject: purpose && purposeKey(purpose) });
			const ended = await this.recordings.record(
				link,
				{ id: entryId, row, author, name, purpose, signals, listenTo },
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

	/** How many recordings run now. */
	recordingsRunning(): number {
		return [...this.busy.values()].filter(({ recorder }) => recorder).length;
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

	/**
	 * Puts what a stopped server left half done on its threads. Run before anything else is begun, and when another server on the
	 * same database has died. What a thread does not take is put aside for a lead to look at, and never keeps the server from
	 * starting.
	 */
	async recover(): Promise<number> {
		await this.holds.freeDead();
		const left = await this.notes.left();
		for (const one of left) await this.settle(one, 'The server stopped during the scan.');
		return left.length + (await this.recordings.recover());
	}

	/** Brings what was noted of a piece of work to its thread, or puts it aside. Never throws. */
	private async settle(one: Unfinished, stoppedBecause: string): Promise<void> {
		try {
			const told = entryOf(one, stoppedBecause);
			const stored =
				told && (await this.store(one.caseId, one.author, one.id, told.kind, told.payload, nowIso()));
			if (!stored || stored.ok) return await this.notes.forget(one.id);
			await this.notes.putAside(one, stored.error);
			this.log.warn(
				{ caseId: one.caseId, job: one.kind, why: stored.error },
				'work on a vehicle was put aside'
			);
		} catch (error) {
			this.log.error(
				{ err: error, caseId: one.caseId, job: one.kind },
				'work on a vehicle could not be kept'
			);
			await this.notes
				.putAside(one, 'It could not be read as an entry.')
				.catch((worse: unknown) => this.log.error({ err: worse, job: one.id }, 'nor could it be put aside'));
		}
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
		if (!Ulid.safeParse(entryId).success)
			return fail('The entry it is to make has no valid id: load the page again.');
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
			stoppable: kind === 'scan' || kind === 'find' || kind === 'record',
			ended: Promise.resolve(),
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
		job.ended = this.run(job, row.type, work);
		return ok(job.status);
	}

	private async run(
		job: Job,
		type: VehicleType | null,
		work: (job: Job, link: VehicleLink) => Promise<string>
	) {
		let link: VehicleLink | null = null;
		let end: Pick<JobStatus, 'state' | 'outcome'>;
		try {
			await this.prepare(job);
			const opened = await this.open(job.address, type);
			if (!opened.ok) throw new JobTrouble(`${opened.error.text} Nothing was read and nothing was changed.`);
			link = opened.value;
			end = { state: 'finished', outcome: await work(job, opened.value) };
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
			end = { state: 'failed', outcome };
		}
		link?.close();
		// What is told to be over leaves nothing behind that keeps the case from being signed.
		await this.tidy(job, end);
		await this.letGo(job);
		this.busy.delete(job.address);
		this.tell(job, { ...end, now: null });
	}

	/** Nothing is begun on a vehicle that its thread could not keep. */
	private async prepare({ status: { id, caseId, kind, by }, authorId, address }: Job): Promise<void> {
		const refused = await this.threads.refusalOf(caseId, id);
		if (refused) throw new JobTrouble(`${refused.text} Nothing was read and nothing was changed.`);
		const there = await this.holds.take(address, id, by);
		if (there)
			throw new JobTrouble(
				`${there} is at this vehicle now, through another server of this shop. Nothing was read and nothing was changed.`
			);
		// From here on the case is not signed: the note stands until its entry does.
		if (kind !== 'record') await this.notes.write({ id, caseId, authorId }, kind, null);
	}

	/** A hold that cannot be let go now goes with this server. */
	private async letGo({ status: { id } }: Job): Promise<void> {
		await this.holds
			.letGo(id)
			.catch((error: unknown) => this.log.error({ err: error, job: id }, 'a vehicle could not be let go'));
	}

	/** What was noted of it is on the thread, or is brought there now. */
	private async tidy(
		{ status }: Job,
		{ state, outcome }: Pick<JobStatus, 'state' | 'outcome'>
	): Promise<void> {
		try {
			const left = await this.notes.of(status.id);
			if (!left) return;
			if (state === 'finished') await this.notes.forget(status.id);
			else await this.settle(left, outcome ?? 'It failed.');
		} catch (error) {
			this.log.error({ err: error, job: status.id }, 'the note of work on a vehicle stands still');
		}
	}

	private async put<K extends EntryKind>(
		caseId: string,
		author: Author,
		id: string,
		kind: K,
		payload: PayloadOf<K>
	) {
		const stored = await this.store(caseId, author, id, kind, payload, nowIso());
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
		const draft = EntryDraft.safeParse({
			id,
			caseId,
			kind,
			version: ENTRY_VERSION,
			observedAt,
			supersedes: null,
			payload
		});
		if (!draft.success) return fail(z.prettifyError(draft.error));
		const stored = await this.threads.append(draft.data, author);
		if (!stored.ok) return fail(stored.error.text);
		this.cases.later(caseId);
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

/** How the vehicle of a case is reached. */
export const overOf = ({ vehicle: { linkAddress } }: Pick<CaseRow, 'vehicle'>): Over =>
	linkAddress?.startsWith('slcan:') ? 'can' : 'network';

const NOBODY_KNOWS_WHERE =
	'Nobody has told yet where its modules answer: search them first, or read with another tool.';

/** Trouble that the person can be told as it is. */
class JobTrouble extends Error {}

const WORDS = {
	scan: 'reading its modules',
	find: 'searching its modules',
	clear: 'clearing codes',
	key: 'checking the key',
	record: 'recording live data',
	calibrate: 'teaching a module'
} as const;

const nowIso = () => new Date().toISOString();

/** The entry that unfinished work comes to; null where it had not come to anything. */
function entryOf(
	{ kind, draft }: Unfinished,
	stoppedBecause: string
): { kind: 'codes-cleared' | 'calibration' | 'network-scan' | 'modules-found'; payload: never } | null {
	if (draft === null) return null;
	switch (kind) {
		case 'clear': {
			const cleared = draft as PayloadOf<'codes-cleared'>;
			return hasBegun(cleared) ? { kind: 'codes-cleared', payload: cleared as never } : null;
		}
		case 'calibrate':
			return { kind: 'calibration', payload: draft as never };
		case 'scan': {
			const scan = draft as NetworkScan;
			return scan.modules.length > 0
				? { kind: 'network-scan', payload: { ...scan, stoppedBecause } as never }
				: null;
		}
		case 'find': {
			const found = draft as PayloadOf<'modules-found'>;
			return found.modules.length > 0
				? { kind: 'modules-found', payload: { ...found, stoppedBecause } as never }
				: null;
		}
		case 'key':
			return null;
	}
}

const noteOf = ({ status, authorId }: Job) => ({ id: status.id, caseId: status.caseId, authorId });
