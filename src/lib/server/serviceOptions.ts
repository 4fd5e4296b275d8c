import { resolve } from 'node:path';
import { bucketPlace, guarded, type BucketPlace } from '../objects/objectStore';
import type { BackupPlan } from './watch/backupSchedule';

export interface ServiceOptions {
	/** Which shop this is where one server has several; absent = the only one. */
	name?: string | undefined;
	databaseUrl: string;
	databaseToken?: string;
	secret: string;
	origin: string;
	logLevel?: string | undefined;
	/** Backups that the server makes itself; absent = none. */
	backups?: BackupPlan | undefined;
	/** Where samples and photos lie; absent = in the database. */
	objects?: BucketPlace | undefined;
	/** How often one person may ask in a minute; absent = the usual. */
	requestsPerMinute?: number | undefined;
	/** Bundle of the worker threads; absent = heavy work is done on this thread. */
	workerFile?: string | undefined;
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
		databaseUrl: guarded('JALDI_DATABASE_URL', env.JALDI_DATABASE_URL ?? 'file:./data/jaldi.db'),
		databaseToken: env.JALDI_DATABASE_TOKEN,
		secret,
		origin: env.ORIGIN ?? `http://127.0.0.1:${env.PORT ?? '3000'}`,
		logLevel: env.JALDI_LOG_LEVEL,
		backups: backupsIn(env),
		objects: bucketIn(env, 'JALDI_BLOBS'),
		requestsPerMinute: numberIn(env, 'JALDI_REQUESTS_PER_MINUTE'),
		workerFile: import.meta.env?.PROD ? resolve(WORKER_FILE) : undefined
	};
}

/** A bucket by its variable, and the address of its store by that with `_ENDPOINT`. */
function bucketIn(env: Record<string, string | undefined>, name: string): BucketPlace | undefined {
	const place = env[name];
	const endpoint = env[`${name}_ENDPOINT`];
	if (!place) return undefined;
	return bucketPlace(place, endpoint && guarded(`${name}_ENDPOINT`, endpoint), name);
}

const USUAL_BACKUP_HOURS = 24;
const USUAL_BACKUPS_KEPT = 14;

const backupsIn = (env: Record<string, string | undefined>): BackupPlan | undefined =>
	env.JALDI_BACKUP_TO
		? {
				to: resolve(env.JALDI_BACKUP_TO),
				everyHours: numberIn(env, 'JALDI_BACKUP_EVERY_HOURS') ?? USUAL_BACKUP_HOURS,
				keep: numberIn(env, 'JALDI_BACKUP_KEEP') ?? USUAL_BACKUPS_KEPT,
				copyTo: bucketIn(env, 'JALDI_BACKUP_COPY_TO')
			}
		: undefined;

/** A whole number above zero. Throws for anything else that is set: a limit that is mistyped is no limit. */
function numberIn(env: Record<string, string | undefined>, name: string): number | undefined {
	const text = env[name];
	if (text === undefined || text === '') return undefined;
	const value = Number(text);
	if (!Number.isInteger(value) || value < 1) throw new Error(`${name} must be a whole number above zero.`);
	return value;
}
