// npm run fuzz [-- RUNS]: every parser against anything at all, a hundred thousand inputs each unless told otherwise;
// then sound vehicles for ten thousand kilometres.
import fc from 'fast-check';
import { FUZZED } from './fuzzProperties';
import { healthyDrives } from './healthyDrives';
import { healthyRecordings } from './healthyRecordings';

const numRuns = Number(process.argv[2] ?? 100_000);
/** One input may not take longer than this: a parser that hangs is as bad as one that throws. */
const HANG_MS = 5000;
/** Together, over all vehicle types. */
const HEALTHY_RECORDINGS = 200;
const HEALTHY_KM = 10_000;
let failed = 0;
for (const { name, property } of FUZZED) {
	const began = performance.now();
	const result = fc.check(property as fc.IProperty<unknown>, { numRuns });
	const seconds = (performance.now() - began) / 1000;
	const slow = seconds * 1000 > HANG_MS + numRuns;
	if (result.failed || slow) failed++;
	const outcome = result.failed
		? `FAILED with seed ${result.seed}: ${String(result.errorInstance)}\n  ${JSON.stringify(result.counterexample)}`
		: slow
			? 'FAILED: more than a millisecond an input'
			: 'good';
	console.log(`${name}: ${result.numRuns} inputs in ${seconds.toFixed(1)} s, ${outcome}`);
}
const began = performance.now();
const { drivenKm, codes } = healthyDrives(HEALTHY_KM, 11);
const outcome = codes.length === 0 ? 'good' : `FAILED:\n  ${codes.join('\n  ')}`;
console.log(
	`sound vehicles: ${drivenKm.toFixed(0)} km of random days in ${((performance.now() - began) / 1000).toFixed(0)} s, ${outcome}`
);
if (codes.length > 0) failed++;
const findings = healthyRecordings(HEALTHY_RECORDINGS, 11);
console.log(
	`live data of sound vehicles: ${HEALTHY_RECORDINGS} drives, ${findings.length === 0 ? 'good' : `FAILED:\n  ${findings.join('\n  ')}`}`
);
if (findings.length > 0) failed++;
process.exit(failed === 0 ? 0 : 1);
