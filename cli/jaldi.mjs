#!/usr/bin/env node
// The `jaldi` command, from the sources as they are: no build comes before it.
import { register } from 'tsx/esm/api';

register();
const { main } = await import('./main.ts');
process.exitCode = await main(process.argv.slice(2));
