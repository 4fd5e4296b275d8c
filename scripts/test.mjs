// npm test: everything, on a fresh clone. Ends with one line "N passed, N failed".
import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { installWhenNeeded } from './install.mjs';

const CHROMIUM = process.env.JALDI_CHROMIUM ?? '/usr/bin/chromium';
const REPORTS = 'data/reports';

const PDF_TOOL = '/usr/bin/pdftotext';

/** Debian's packages that the page tests need: a browser, and a reader of PDF. */
function packagesWhenMissing() {
	const missing = [
		...(existsSync(CHROMIUM) ? [] : ['chromium']),
		...(existsSync(PDF_TOOL) ? [] : ['poppler-utils'])
	];
	if (missing.length === 0) return;
	const names = missing.join(' ');
	const words = `The page tests need Debian's ${names} (Chromium at ${CHROMIUM}, a reader of PDF at ${PDF_TOOL}).`;
	if (process.getuid?.() !== 0) {
		console.error(`${words}\nInstall it with:  sudo apt-get update && sudo apt-get install -y ${names}`);
		process.exit(1);
	}
	console.log(`${words} Installing it …`);
	const quiet = {
		env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
		stdio: /** @type {const} */ (['ignore', 'ignore', 'inherit'])
	};
	execFileSync('apt-get', ['update', '-qq'], quiet);
	execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], quiet);
}

let passed = 0;
let failed = 0;

/**
 * One step of the run; its outcome is counted as one unless it counts its own tests. What it says is printed whole when
 * it ends, so that steps side by side do not talk into each other; a long one (`aloud`) speaks as it goes.
 * @param {string} name
 * @param {string[]} command
 * @param {{ report?: string, count?: (report: any) => [number, number], env?: Record<string, string>, aloud?: boolean }} [options]
 * @returns {Promise<boolean>}
 */
async function step(name, [program = '', ...args], { report, count, env, aloud } = {}) {
	const began = Date.now();
	if (aloud) console.log(`\n— ${name}`);
	const child = spawn(program, args, {
		stdio: ['ignore', aloud ? 'inherit' : 'pipe', aloud ? 'inherit' : 'pipe'],
		env: { ...process.env, ...env }
	});
	/** @type {Buffer[]} */
	const said = [];
	child.stdout?.on('data', (chunk) => said.push(chunk));
	child.stderr?.on('data', (chunk) => said.push(chunk));
	const status = await new Promise((resolve) => {
		child.once('error', () => resolve(1));
		child.once('close', resolve);
	});
	if (!aloud) console.log(`\n— ${name}\n${Buffer.concat(said).toString()}`);
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
packagesWhenMissing();
rmSync(REPORTS, { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });
const bin = (/** @type {string} */ name) => `node_modules/.bin/${name}`;

const build = "import('./scripts/build.mjs').then((b) => b.buildWhenStale())";
/** Two cores: one line of checks beside the other. */
const [, built] = await Promise.all([
	step('form', [bin('prettier'), '--check', '--log-level', 'warn', '.'])
		.then(() => step('rules', [bin('eslint'), '.']))
		.then(() => step('nothing unused', [bin('knip')])),
	step('types', ['npm', 'run', '--silent', 'check']).then(() =>
		step('build', [process.execPath, '-e', build])
	)
]);
const unit = `${REPORTS}/unit.json`;
await step(
	'unit tests',
	[bin('vitest'), 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
	{
		report: unit,
		count: (report) => [report.numPassedTests, report.numFailedTests]
	}
);
if (built) {
	const pages = `${REPORTS}/pages.json`;
	await step('page tests', [bin('playwright'), 'test'], {
		aloud: true,
		report: pages,
		env: { JALDI_TEST_REPORT: pages, JALDI_CHROMIUM: CHROMIUM },
		count: ({ stats }) => [stats.expected + stats.flaky, stats.unexpected + stats.skipped]
	});
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
