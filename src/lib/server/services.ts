import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import pino, { type Logger } from 'pino';
import { fileOf } from '../care/dataFolder';
import { holdDatabase } from '../care/serverLock';
import { codesOn } from '../case/codes/caseCodes';
import { projectCase } from '../case/progress/project';
import { caseTestConditions } from '../case/watch/testConditions';
import { makeAuth, type Auth } from './accounts/auth';
import { FailedTries } from './accounts/failedTries';
import { FirstLead } from './accounts/firstLead';
import { Streams } from './streams';
import { openDatabase, type Database } from './db/open';
import { inlineWork } from './heavy/inline';
import { WorkerPool } from './heavy/pool';
import type { HeavyWork } from './heavy/tasks';
import { takeAwayHalves } from './bundle/importBundle';
import { fail } from '../core/result';
import { trouble } from '../link/vehicleLink';
import { refusedLink } from './cases/linkRules';
import { openAnywhere, VehicleJobs, type Open } from './jobs/vehicleJobs';
import { Outlooks } from './jobs/outlooks';
import type { ServiceOptions } from './serviceOptions';
import { storesOn, type Stores } from './stores';

/** Everything a request may need, made once. */
export interface Services extends Stores {
	auth: Auth;
	vehicleJobs: VehicleJobs;
	outlooks: Outlooks;
	/** Files and papers, on other threads. */
	heavy: HeavyWork;
	/** Reasoning, on a thread of its own: nobody waits for a paper to learn the next step. */
	thinking: HeavyWork;
	streams: Streams;
	failedTries: FailedTries;
	firstLead: FirstLead;
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
	const cut = (text: string) => text.replace(/\nparams: [^]*?(?=\n {4}at |$)/, '\nparams: left out');
	return { ...shown, message: cut(shown.message), stack: cut(shown.stack) };
}

const logger = ({ logLevel }: ServiceOptions): Logger =>
	pino({ level: logLevel ?? 'info', serializers: { err: withoutParameters } });

/** The services of the server itself: brings the database up to date and what a stopped server left to an end. */
export async function startServices(options: ServiceOptions): Promise<Services> {
	const log = logger(options);
	const giveBack = hold(options.databaseUrl);
	try {
		return await startOn(log, options, giveBack);
	} catch (error) {
		giveBack();
		throw error;
	}
}

/** One database file has one server; another kind of database looks after itself. */
function hold(url: string): () => void {
	const file = fileOf(url);
	if (file === null) return () => undefined;
	mkdirSync(dirname(file), { recursive: true });
	return holdDatabase(file);
}

async function startOn(log: Logger, options: ServiceOptions, giveBack: () => void): Promise<Services> {
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	const made = servicesOn(db, log, options, giveBack);
	await made.codes.prepare();
	const halves = await takeAwayHalves(db);
	if (halves > 0) log.warn({ halves }, 'cases that were only half brought in were taken away');
	const recovered = await made.vehicleJobs.recover();
	if (recovered > 0)
		log.warn({ recovered }, 'work that a stopped server left half done was put on its threads');
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

/** How far workers step back behind whoever is served (nice): a file is waited for, a thought may take its time. */
const BEHIND = { heavy: 3, thinking: 9 };

function workersOf(stores: Stores, options: ServiceOptions): { heavy: HeavyWork; thinking: HeavyWork } {
	const file = options.workerFile;
	if (!file) return { heavy: inlineWork(stores), thinking: inlineWork(stores) };
	return {
		heavy: new WorkerPool(file, { options, behind: BEHIND.heavy }).warm(),
		thinking: new WorkerPool(file, { options, behind: BEHIND.thinking }, 1).warm()
	};
}

function servicesOn(db: Database, log: Logger, options: ServiceOptions, giveBack: () => void): Services {
	const stores = storesOn(db, options.origin);
	const { threads, codes, cases, captures } = stores;
	const { heavy, thinking } = workersOf(stores, options);
	const testsOf = async (caseId: string) => {
		const thread = await threads.read(caseId);
		const view = projectCase(thread, await codes.bookFor(codesOn(thread)));
		return caseTestConditions(view).map(({ name, condition }) => ({ name, condition }));
	};
	const open: Open = async (address, type) => {
		const refused = refusedLink(address, await stores.settings.read('linkRules'));
		return refused ? fail(trouble('refused', refused)) : openAnywhere(address, type);
	};
	const vehicleJobs = new VehicleJobs(db, threads, cases, captures, log, open, testsOf, (input) =>
		heavy.ask('endedRecording', input)
	);
	const outlooks = new Outlooks(db, log, thinking);
	const auth = makeAuth({ db, secret: options.secret, origin: options.origin });
	return {
		...stores,
		auth,
		vehicleJobs,
		outlooks,
		heavy,
		thinking,
		streams: new Streams(),
		failedTries: new FailedTries(),
		firstLead: new FirstLead(db, auth, fileOf(options.databaseUrl)),
		log,
		async close() {
			await vehicleJobs.stop();
			await cases.settled();
			await Promise.all([heavy.close(), thinking.close()]);
			db.$client.close();
			giveBack();
		}
	};
}
