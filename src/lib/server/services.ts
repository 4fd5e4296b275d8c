import pino, { type Logger } from 'pino';
import { codesOn } from '../case/codes';
import { projectCase } from '../case/project';
import { caseTestConditions } from '../case/testConditions';
import { makeAuth, type Auth } from './accounts/auth';
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
import { outlookOf } from './cases/outlook';
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
	log: Logger;
	origin: string;
}

export interface ServiceOptions {
	databaseUrl: string;
	databaseToken?: string;
	secret: string;
	origin: string;
	logLevel?: string;
}

export async function startServices(options: ServiceOptions): Promise<Services> {
	const log = pino({ level: options.logLevel ?? 'info' });
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	const threads = new Threads(db);
	const cases = new Cases(db, threads);
	const codes = new CodeLibrary(db);
	await codes.prepare();
	const desk = new LinkDesk(db, threads, cases, log, undefined, async (caseId) => {
		const thread = await threads.read(caseId);
		return caseTestConditions(projectCase(thread, await codes.bookFor(codesOn(thread))));
	});
	const halves = await takeAwayHalves(db);
	if (halves > 0) log.warn({ halves }, 'cases that were only half brought in were taken away');
	const recovered = await desk.recover();
	if (recovered > 0)
		log.warn({ recovered }, 'work that a stopped server left half done was put on its threads');
	// Nobody waits for this: a case that is looked at before its turn is computed then.
	cases
		.catchUp()
		.then((count) => count > 0 && log.info({ count }, 'what is kept beside threads was computed anew'))
		.catch((error: unknown) =>
			log.error({ err: error }, 'what is kept beside threads could not be computed anew')
		);
	const auth = makeAuth({ db, secret: options.secret, origin: options.origin });
	return {
		db,
		auth,
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
		outlooks: new Outlooks(db, log, outlookOf),
		log,
		origin: options.origin
	};
}

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
		logLevel: env.JALDI_LOG_LEVEL
	};
}
