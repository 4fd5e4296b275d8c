// npm run bench: measures the code as it ships, bundled as it is for users.
import { freshBundle } from '../cli/bundle.mjs';
import { buildWhenStale } from './build.mjs';
import { prepareShop, startServer } from './shop.mjs';

const { main } = await import(await freshBundle('bench'));
await main({ buildWhenStale, prepareShop, startServer });
