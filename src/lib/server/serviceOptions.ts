import { resolve } from 'node:path';

export interface ServiceOptions {
	databaseUrl: string;
	databaseToken?: string;
	secret: string;
	origin: string;
	logLevel?: string | undefined;
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
		databaseUrl: env.JALDI_DATABASE_URL ?? 'file:./data/jaldi.db',
		databaseToken: env.JALDI_DATABASE_TOKEN,
		secret,
		origin: env.ORIGIN ?? `http://127.0.0.1:${env.PORT ?? '3000'}`,
		logLevel: env.JALDI_LOG_LEVEL,
		workerFile: import.meta.env?.PROD ? resolve(WORKER_FILE) : undefined
	};
}
