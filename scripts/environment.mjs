// What a server needs to know, where nobody has said it: a data folder, a secret, an address, limits.
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { secretOf } from '../src/lib/care/secretOf.js';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const DEFAULT_PORT = '3000';
const OF_ONE_SHOP = ['ORIGIN', 'JALDI_SECRET', 'JALDI_DATABASE_URL', 'JALDI_DATABASE_TOKEN'];
/** How the server is told by what protocol people reach the shop that a request is for; nobody else may say. */
export const SHOP_PROTOCOL = 'x-jaldi-protocol';

/**
 * The environment with everything in it that a server needs. Paths are taken from the project's own folder, wherever it was
 * started from. Of a chain each shop has its own address, secret and database; what is said of one shop alone is refused then.
 * @param {Record<string, string | undefined>} env
 * @returns {Record<string, string | undefined>}
 */
export function completeEnvironment(env) {
	const port = env.PORT ?? DEFAULT_PORT;
	const rest = {
		...env,
		NODE_ENV: env.NODE_ENV ?? 'production',
		PORT: port,
		HOST: env.HOST ?? '127.0.0.1',
		// Each kind of request has a limit of its own; this one is above all of them.
		BODY_SIZE_LIMIT: env.BODY_SIZE_LIMIT ?? '520M',
		SHUTDOWN_TIMEOUT: env.SHUTDOWN_TIMEOUT ?? '4'
	};
	if (env.JALDI_SHOPS) {
		const ofOne = OF_ONE_SHOP.filter((name) => env[name]);
		if (ofOne.length > 0)
			throw new Error(
				`with JALDI_SHOPS each shop has its own address, secret and database; take out ${ofOne.join(', ')}`
			);
		return { ...rest, JALDI_SHOPS: resolve(ROOT, env.JALDI_SHOPS), PROTOCOL_HEADER: SHOP_PROTOCOL };
	}
	const data = join(ROOT, 'data');
	const url = env.JALDI_DATABASE_URL ?? `file:${join(data, 'jaldi.db')}`;
	return {
		...rest,
		ORIGIN: env.ORIGIN ?? `http://127.0.0.1:${port}`,
		JALDI_DATABASE_URL: url,
		JALDI_SECRET: env.JALDI_SECRET ?? secretOf(data)
	};
}
