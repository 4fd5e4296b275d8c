import { resolve } from 'node:path';
import pino, { type Logger } from 'pino';
import { codesOn } from '../case/codes';
import { projectCase } from '../case/project';
import { caseTestConditions } from '../case/testConditions';
import { makeAuth, type Auth } from './accounts/auth';
import { FailedTries } from './accounts/failedTries';
import { Streams } from './streams';
import { Cases } from './db/cases';
import { CodeLibrary } from './db/codeLibrary';
import { ColumnMemory } from './db/columnMemory';
import { FrameSignals } from './db/frameSignals';
import { GoodReadings } from './db/goodReadings';
import { openDatabase, type Database } from './db/open';
import { Photos } from './db/photos';
import { ReasonBooks } from './db/reasonBooks';
import { PutAside } from './db/putAside';
import { ShopKeys } from './db/shopKeys';
import { ShopSettings } from './db/shopSettings';
import { Threads } from './db/threads';
import { TrackRecord } from './db/trackRecord';
import { inlineWork } from './heavy/inline';
import { WorkerPool } from './heavy/pool';
import type { HeavyWork } from './heavy/tasks';
import { takeAwayHalves } from './bundle/importBundle';
import { LinkDesk } from './jobs/desk';
import { Outlooks } from './jobs/outlooks';

/** Everything a request may need, made once. */
export interface Services {
	db: Database;
	auth: Auth;
	threads: Threads;
	cases: Cases;
	codes: CodeLibrary;
	columnMemory: ColumnMemory;
	frameSignals: FrameSignals;
	goodReadings: GoodReadings;
	photos: Photos;
	settings: ShopSettings;
	shopKeys: ShopKeys;
	putAside: PutAside;
	reasonBooks: ReasonBooks;
	trackRecord: TrackRecord;
	desk: LinkDesk;
	outlooks: Outlooks;
	/** Files and papers, on other threads. */
	heavy: HeavyWork;
	/** Reasoning, on a thread of its own: nobody waits for a paper to learn the next step. */
	thinking: HeavyWork;
	streams: Streams;
	failedTries: FailedTries;
	log: Logger;
	origin: string;
	/** Ends what runs and closes the database. */
	close: () => Promise<void>;
}

export interface ServiceOptions {
	databaseUrl: string;
	databaseToken?: string;
	secret: string;
	origin: string;
	logLevel?: string | undefined;
	/** Bundle of the worker threads; absent = heavy work is done on this thread. */
	workerFile?: string | undefined;
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

/** The services as a worker has them: it reads and computes, and begins nothing by itself. */
export async function openServices(options: ServiceOptions): Promise<Services> {
	const log = logger(options);
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	return servicesOn(db, log, options, { heavy: inlineWork, thinking: inlineWork });
}

/** The services of the server itself: brings the database up to date and what a stopped server left to an end. */
export async function startServices(options: ServiceOptions): Promise<Services> {
	const log = logger(options);
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	const made = servicesOn(db, log, options, workersOf(options));
	await made.codes.prepare();
	const halves = await takeAwayHalves(db);
	if (halves > 0) log.warn({ halves }, 'cases that were only half brought in were taken away');
	const recovered = await made.desk.recover();
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

function workersOf(options: ServiceOptions): { heavy: HeavyWork; thinking: HeavyWork } {
	const file = options.workerFile;
	if (!file) return { heavy: inlineWork, thinking: inlineWork };
	return {
		heavy: new WorkerPool(file, { options, behind: BEHIND.heavy }).warm(),
		thinking: new WorkerPool(file, { options, behind: BEHIND.thinking }, 1).warm()
	};
}

function servicesOn(
	db: Database,
	log: Logger,
	options: ServiceOptions,
	{ heavy, thinking }: { heavy: HeavyWork; thinking: HeavyWork }
): Services {
	const threads = new Threads(db);
	const codes = new CodeLibrary(db);
	const cases = new Cases(db, threads, codes);
	const testsOf = async (caseId: string) => {
		const thread = await threads.read(caseId);
		const view = projectCase(thread, await codes.bookFor(codesOn(thread)));
		return caseTestConditions(view).map(({ name, condition }) => ({ name, condition }));
	};
	const desk = new LinkDesk(db, threads, cases, log, undefined, testsOf, (input) =>
		heavy.ask('endedRecording', input)
	);
	const outlooks = new Outlooks(db, log, thinking);
	return {
		db,
		auth: makeAuth({ db, secret: options.secret, origin: options.origin }),
		threads,
		cases,
		codes,
		columnMemory: new ColumnMemory(db),
		frameSignals: new FrameSignals(db),
		goodReadings: new GoodReadings(db),
		photos: new Photos(db),
		settings: new ShopSettings(db),
		shopKeys: new ShopKeys(db),
		putAside: new PutAside(db),
		reasonBooks: new ReasonBooks(db),
		trackRecord: new TrackRecord(db),
		desk,
		outlooks,
		heavy,
		thinking,
		streams: new Streams(),
		failedTries: new FailedTries(),
		log,
		origin: options.origin,
		async close() {
			await desk.stop();
			await cases.settled();
			await Promise.all([heavy.close(), thinking.close()]);
			db.$client.close();
		}
	};
}

/** The bundle of the worker threads of the built server, which runs from the project's own folder. */
const WORKER_FILE = 'build/heavy/worker.js';

/** Options from the environment. Throws where a secret is missing: better no server than an open one. */
export function optionsFromEnvironment(env: Record<string, string | undefined>): ServiceOptions {
	const secret = env.JALDI_SECRET;
	if (!secret || secret.length < 32) {
		throw new Error(
			'JALDI_SECRET must be set to at least 32 random characters (for example: openssl rand -hex 32).'
		);
	}
	return {
		databaseUrl: env.JALDI_DATABASE_URL ?? 'file:./data/jaldi.db',
		databaseToken: env.JALDI_DATABASE_TOKEN,
		secret,
		origin: env.ORIGIN ?? `http://127.0.0.1:${env.PORT ?? '3000'}`,
		logLevel: env.JALDI_LOG_LEVEL,
		workerFile: import.meta.env?.PROD ? resolve(WORKER_FILE) : undefined
	};
}
