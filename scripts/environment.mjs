// What a server needs to know, where nobody has said it: a data folder, a secret, an address, limits.
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const DEFAULT_PORT = '3000';

/**
 * The secret of a data folder, made when it is first needed.
 * @param {string} data
 */
export function secretOf(data) {
	mkdirSync(data, { recursive: true, mode: 0o700 });
	const file = join(data, 'secret');
	if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
	return readFileSync(file, 'utf8').trim();
}

/**
 * The environment with everything in it that a server needs. Paths are taken from the project's own folder, wherever it was
 * started from.
 * @param {Record<string, string | undefined>} env
 * @returns {Record<string, string | undefined>}
 */
export function completeEnvironment(env) {
	const port = env.PORT ?? DEFAULT_PORT;
	const data = join(ROOT, 'data');
	const url = env.JALDI_DATABASE_URL ?? `file:${join(data, 'jaldi.db')}`;
	return {
		...env,
		NODE_ENV: env.NODE_ENV ?? 'production',
		PORT: port,
		HOST: env.HOST ?? '127.0.0.1',
		ORIGIN: env.ORIGIN ?? `http://127.0.0.1:${port}`,
		JALDI_DATABASE_URL: url,
		JALDI_SECRET: env.JALDI_SECRET ?? secretOf(data),
		// Each kind of request has a limit of its own; this one is above all of them.
		BODY_SIZE_LIMIT: env.BODY_SIZE_LIMIT ?? '520M',
		SHUTDOWN_TIMEOUT: env.SHUTDOWN_TIMEOUT ?? '4'
	};
}
