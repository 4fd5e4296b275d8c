import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import pino, { type Logger } from 'pino';
import { databaseOf, fileOf } from '../care/dataFolder';
import { holdDatabase } from '../care/serverLock';
import { codesOn } from '../case/codes/caseCodes';
import { projectCase } from '../case/progress/project';
import { caseTestConditions } from '../case/watch/testConditions';
import { makeAuth, type Auth } from './accounts/auth';
import { AdminLog } from './accounts/adminLog';
import { ApiTokens } from './accounts/apiTokens';
import { FailedTries } from './accounts/failedTries';
import { FirstLead } from './accounts/firstLead';
import { People } from './accounts/people';
import { QuickCodes } from './accounts/quickCode';
import { Streams } from './streams';
import { DatabaseTrouble, TROUBLE_WORDS } from './db/health';
import { healthOf, openDatabase } from './db/open';
import { VehicleHolds } from './db/vehicleHolds';
import type { HeavyWork } from './heavy/tasks';
import { takeAwayHalves } from './bundle/importBundle';
import { fail } from '../core/result';
import { trouble } from '../link/vehicleLink';
import { refusedLink } from './cases/linkRules';
import { Machine, type ShopWork } from './machine';
import { openAnywhere, VehicleJobs, type Open } from './jobs/vehicleJobs';
import { objectsOf } from '../objects/s3Store';
import { Outlooks } from './jobs/outlooks';
import type { ServiceOptions } from './serviceOptions';
import { Peers } from './peers';
import { storesOn, type Stores } from './stores';
import { Pace } from './gate/pace';
import { BackupSchedule } from './watch/backupSchedule';
import { Metrics } from './watch/metrics';
import type { Stalls } from './watch/stalls';
import { Troubles } from './watch/troubles';

/** A file of any size is gone through in this. */
const PAGES_MS = 30 * 60_000;

/** Everything a request may need, made once. */
export interface Services extends Stores {
	auth: Auth;
	vehicleJobs: VehicleJobs;
	/** The other servers on the same database. */
	peers: Peers;
	outlooks: Outlooks;
	/** Files and papers, on other threads. */
	heavy: HeavyWork;
	/** Reasoning, on a thread of its own: nobody waits for a paper to learn the next step. */
	thinking: HeavyWork;
	streams: Streams;
	failedTries: FailedTries;
	firstLead: FirstLead;
	people: People;
	quickCodes: QuickCodes;
	apiTokens: ApiTokens;
	adminLog: AdminLog;
	pace: Pace;
	metrics: Metrics;
	troubles: Troubles;
	stalls: Stalls;
	backups: BackupSchedule;
	/** Where the database lies; null = on another machine. */
	databaseFile: string | null;
	log: Logger;
	/** Ends what runs and closes the database. */
	close: () => Promise<void>;
}

/** What was asked of the database says what; what it was asked with may be anybody's words, or a password. */
function withoutParameters(error: Error): object {
	const shown = pino.stdSerializers.err(error) as {
		message: string;
		stack: string;
		query?: string;
		params?: unknown;
	};
	delete shown.params;
	const cut = (text: string) => text.replace(/\nparams: [^]*?(?=\n {4}at |$)/g, '\nparams: left out');
	return { ...shown, message: cut(shown.message), stack: cut(shown.stack) };
}

/** Of one shop among others every line says which. */
const logger = ({ logLevel, name }: ServiceOptions): Logger =>
	pino({
		level: logLevel ?? 'info',
		serializers: { err: withoutParameters },
		...(name === undefined ? {} : { base: { pid: process.pid, shop: name } })
	});

/**
 * The services of one shop: brings its database up to date and what a stopped server left to an end.
 *
 * @param shared what it shares with the other shops of this process; absent = it has a machine of its own
 */
export async function startServices(options: ServiceOptions, shared?: Machine): Promise<Services> {
	const log = logger(options);
	const giveBack = hold(options.databaseUrl);
	const machine = shared ?? new Machine(options.workerFile, options);
	const close = async () => {
		if (!shared) await machine.close();
		giveBack();
	};
	try {
		return await startOn(log, options, machine, close);
	} catch (error) {
		await close();
		throw error;
	}
}

/** One database file has one server; another kind of database looks after itself. */
function hold(url: string): () => void {
	const file = fileOf(url);
	if (file === null) return () => undefined;
	try {
		mkdirSync(dirname(file), { recursive: true });
		return holdDatabase(file);
	} catch (error) {
		// Whoever may not even say that the database is held may not write it.
		if (error instanceof Error && 'code' in error) throw new DatabaseTrouble('read-only', error);
		throw error;
	}
}

async function startOn(
	log: Logger,
	options: ServiceOptions,
	machine: Machine,
	closed: () => Promise<void>
): Promise<Services> {
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	const stores = storesOn(db, options.origin, objectsOf(options), machine.turns);
	const work = machine.workOf(stores, options);
	const made = servicesOn(stores, work, { log, options, machine, closed });
	if (made.databaseFile === null) await made.peers.begin(() => made.vehicleJobs.recover());
	await made.codes.prepare();
	const halves = await takeAwayHalves(db);
	if (halves > 0) log.warn({ halves }, 'cases that were only half brought in were taken away');
	const recovered = await made.vehicleJobs.recover();
	if (recovered > 0)
		log.warn({ recovered }, 'work that a stopped server left half done was put on its threads');
	watchOver(made, work.besides);
	made.backups.begin();
	// Nobody waits for this: a case that is looked at before its turn is computed then.
	made.cases
		.catchUp()
		.then((count) => count > 0 && log.info({ count }, 'what is kept beside threads was computed anew'))
		.then(() => made.cases.checkOpenChains())
		.then((broken) => broken > 0 && log.error({ broken }, 'threads are not as they were written'))
		.catch((error: unknown) =>
			log.error({ err: error }, 'what is kept beside threads could not be computed anew')
		);
	return made;
}

/** Backups by the server itself, where somebody asked for them. */
function backupsOf(
	{ backups, databaseUrl }: ServiceOptions,
	ask: HeavyWork['ask'],
	log: Logger
): BackupSchedule {
	const file = fileOf(databaseUrl);
	const folder = file === null ? null : dirname(resolve(file));
	if (backups && (folder === null || file === null || databaseOf(folder) !== resolve(file)))
		throw new Error(
			'JALDI_BACKUP_TO works for a database file called jaldi.db; back up another by its own means.'
		);
	return new BackupSchedule(
		backups ?? null,
		({ to, keep }, now) => ask('backUp', { folder: folder ?? '', to, now, keep }, { limitMs: PAGES_MS }),
		(done) =>
			done.ok
				? log.info({ file: done.value.file, bytes: done.value.bytes }, 'a backup was made')
				: log.error({ why: done.error }, 'no backup could be made'),
		({ to, keep, copyTo }) => ask('copyBackup', { to, keep, place: copyTo }, { limitMs: PAGES_MS })
	);
}

/** What is wrong with the database's place is logged as it comes and goes; its pages are gone through once, beside all else. */
function watchOver({ db, log }: Services, ask: HeavyWork['ask']): void {
	const health = healthOf(db);
	health.follow((trouble) =>
		trouble
			? log.error({ trouble: trouble.kind }, TROUBLE_WORDS[trouble.kind])
			: log.warn('the database can be written again')
	);
	ask('damagedPages', null, { limitMs: PAGES_MS })
		.then((damaged) => {
			if (damaged === null) return;
			log.error({ damaged }, 'pages of the database are damaged');
			health.found('damaged');
		})
		.catch((error: unknown) =>
			log.warn({ err: error }, 'the pages of the database could not be gone through')
		);
}

interface Around {
	log: Logger;
	options: ServiceOptions;
	machine: Machine;
	/** Told when all of the shop has ended. */
	closed: () => Promise<void>;
}

function servicesOn(
	stores: Stores,
	{ heavy, thinking, besides }: ShopWork,
	{ log, options, machine, closed }: Around
): Services {
	const { db, threads, codes, cases, captures } = stores;
	const testsOf = async (caseId: string) => {
		const thread = await threads.read(caseId);
		const view = projectCase(thread, await codes.bookFor(codesOn(thread)));
		return caseTestConditions(view).map(({ name, condition }) => ({ name, condition }));
	};
	const open: Open = async (address, type) => {
		const refused = refusedLink(address, await stores.settings.read('linkRules'));
		return refused ? fail(trouble('refused', refused)) : openAnywhere(address, type);
	};
	const peers = new Peers(db, { log, origin: options.origin, threads });
	const holds = new VehicleHolds(db, peers.id);
	const vehicleJobs = new VehicleJobs(db, threads, cases, captures, log, holds, open, testsOf, (input) =>
		heavy.ask('endedRecording', input)
	);
	const outlooks = new Outlooks(db, log, thinking);
	const auth = makeAuth({ db, secret: options.secret, origin: options.origin });
	const streams = new Streams();
	const databaseFile = fileOf(options.databaseUrl);
	const backups = backupsOf(options, besides, log);
	return {
		...stores,
		auth,
		vehicleJobs,
		peers,
		outlooks,
		heavy,
		thinking,
		streams,
		pace: new Pace(options.requestsPerMinute),
		metrics: new Metrics(
			{
				ready: () => healthOf(db).state() === null,
				recordings: () => vehicleJobs.recordingsRunning(),
				streams: () => streams.count
			},
			machine.figures
		),
		troubles: new Troubles(),
		stalls: machine.stalls,
		backups,
		databaseFile,
		failedTries: new FailedTries(),
		people: new People(db, auth),
		quickCodes: new QuickCodes(db, auth),
		apiTokens: new ApiTokens(db),
		adminLog: new AdminLog(db),
		firstLead: new FirstLead(db, auth, databaseFile),
		log,
		async close() {
			backups.end();
			await vehicleJobs.stop();
			await cases.settled();
			if (databaseFile === null) await peers.end().catch(() => undefined);
			await Promise.all([heavy.close(), thinking.close()]);
			db.$client.close();
			await closed();
		}
	};
}
