#!/usr/bin/env node
// The `jaldi` command, from the sources as they are: no build comes before it.
import { freshBundle } from './bundle.mjs';

const { main } = await import(await freshBundle());
process.exitCode = await main(process.argv.slice(2));
