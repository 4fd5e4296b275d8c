// npm run demo [-- --fresh]: the demo shop, from a fresh clone to a running page, with nothing but Node 20 and npm.
import { rmSync } from 'node:fs';
import { buildWhenStale } from './build.mjs';
import { installWhenNeeded } from './install.mjs';
import { startShop } from './shop.mjs';

const DATA = 'data/demo';
const port = Number(process.env.PORT ?? 4700);
const firstPort = Number(process.env.JALDI_BENCH_PORT ?? port + 100);

installWhenNeeded();
buildWhenStale();
if (process.argv.includes('--fresh')) rmSync(DATA, { recursive: true, force: true });
const shop = await startShop({ data: DATA, port, firstPort }).catch((error) => {
	console.error(error.message);
	process.exit(1);
});

console.log(`
Jaldi is open at ${shop.origin}

  ana    technician      password for all: ebb-and-flow
  teo    technician
  marit  lead
  office office
  guest  viewer

Everything stays in ${DATA}; "npm run demo -- --fresh" starts over. Stop with Ctrl+C.
`);
for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) process.once(signal, () => shop.stop());
for (const part of [shop.server, shop.bench]) part.once('exit', () => shop.stop());
