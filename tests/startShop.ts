import { rmSync } from 'node:fs';
import { buildWhenStale } from '../scripts/build.mjs';
import { startShop } from '../scripts/shop.mjs';
import { DATA, FIRST_BENCH_PORT, PORT } from './where';

/** A fresh demo shop for the whole run, on ports of its own. */
export default async function start(): Promise<() => void> {
	buildWhenStale();
	rmSync(DATA, { recursive: true, force: true });
	const shop = await startShop({ data: DATA, port: PORT, firstPort: FIRST_BENCH_PORT, logLevel: 'error' });
	return () => shop.stop();
}
