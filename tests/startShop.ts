import { rmSync } from 'node:fs';
import { buildWhenStale } from '../scripts/build.mjs';
import { startShop } from '../scripts/shop.mjs';
import { DATA, FIRST_BENCH_PORT, PORT } from './where';

/** A fresh demo shop for the whole run, on ports of its own. */
export default async function start(): Promise<() => void> {
	// Of this process and of the tests after it, which ask faster than people.
	process.env.JALDI_REQUESTS_PER_MINUTE ??= '1000000';
	buildWhenStale();
	rmSync(DATA, { recursive: true, force: true });
	const shop = await startShop({ data: DATA, port: PORT, firstPort: FIRST_BENCH_PORT, logLevel: 'error' });
	return () => shop.stop();
}
