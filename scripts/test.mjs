// npm test: everything, on a fresh clone. Ends with one line "N passed, N failed".
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { installWhenNeeded } from './install.mjs';

const CHROMIUM = process.env.JALDI_CHROMIUM ?? '/usr/bin/chromium';
const REPORTS = 'data/reports';

function chromiumWhenMissing() {
	if (existsSync(CHROMIUM)) return;
	const words = `The page tests drive Debian's Chromium, which is not at ${CHROMIUM}.`;
	if (process.getuid?.() !== 0) {
		console.error(`${words}\nInstall it with:  sudo apt-get update && sudo apt-get install -y chromium`);
		process.exit(1);
	}
	console.log(`${words} Installing it …`);
	const quiet = {
		env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
		stdio: /** @type {const} */ (['ignore', 'ignore', 'inherit'])
	};
	execFileSync('apt-get', ['update', '-qq'], quiet);
	execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], quiet);
}

let passed = 0;
let failed = 0;

/**
 * One step of the run; its outcome is counted as one unless it counts its own tests.
 * @param {string} name
 * @param {string[]} command
 * @param {{ report?: string, count?: (report: any) => [number, number], env?: Record<string, string> }} [options]
 */
function step(name, command, { report, count, env } = {}) {
	console.log(`\n— ${name}`);
	const began = Date.now();
	const [program, ...args] = command;
	const { status } = spawnSync(program ?? '', args, { stdio: 'inherit', env: { ...process.env, ...env } });
	console.log(
		`— ${name}: ${status === 0 ? 'good' : 'failed'}, ${((Date.now() - began) / 1000).toFixed(0)} s`
	);
	if (report && count && existsSync(report)) {
		const [good, bad] = count(JSON.parse(readFileSync(report, 'utf8')));
		passed += good;
		failed += bad;
		// A run that broke outside its tests is a failure too.
		if (status !== 0 && bad === 0) failed += 1;
	} else if (status === 0) passed += 1;
	else failed += 1;
	return status === 0;
}

installWhenNeeded();
chromiumWhenMissing();
rmSync(REPORTS, { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });
const bin = (/** @type {string} */ name) => `node_modules/.bin/${name}`;

step('form', [bin('prettier'), '--check', '--log-level', 'warn', '.']);
step('rules', [bin('eslint'), '.']);
step('nothing unused', [bin('knip')]);
step('types', ['npm', 'run', '--silent', 'check']);
step(
	'unit tests',
	[bin('vitest'), 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${REPORTS}/unit.json`],
	{
		report: `${REPORTS}/unit.json`,
		count: (report) => [report.numPassedTests, report.numFailedTests]
	}
);
if (
	step('build', [process.execPath, '-e', "import('./scripts/build.mjs').then((b) => b.buildWhenStale())"])
) {
	step('page tests', [bin('playwright'), 'test'], {
		report: `${REPORTS}/pages.json`,
		env: { JALDI_TEST_REPORT: `${REPORTS}/pages.json`, JALDI_CHROMIUM: CHROMIUM },
		count: (report) => [
			report.stats.expected + report.stats.flaky,
			report.stats.unexpected + report.stats.skipped
		]
	});
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
