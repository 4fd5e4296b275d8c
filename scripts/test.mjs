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

/** @type {{ name: string, wallS: number, processorS: number | null }[]} */
const took = [];
/** Jiffies a second, as Linux counts them for every process. */
const JIFFIES = 100;
/** Processor time of all that was started here and has ended, seconds; null where the system does not tell. */
function processorS() {
	if (!existsSync('/proc/self/stat')) return null;
	const fields = readFileSync('/proc/self/stat', 'utf8').split(') ')[1]?.split(' ') ?? [];
	// Of children that were waited for: user, then system.
	return (Number(fields[13]) + Number(fields[14])) / JIFFIES;
}

/**
 * Does a part of the run and notes what it took.
 * @template T
 * @param {string} name
 * @param {() => Promise<T>} work
 * @returns {Promise<T>}
 */
async function part(name, work) {
	const [began, before] = [Date.now(), processorS()];
	const done = await work();
	const after = processorS();
	took.push({
		name,
		wallS: (Date.now() - began) / 1000,
		processorS: before === null || after === null ? null : after - before
	});
	return done;
}

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
const [, built] = await part('form, rules, types, build', () =>
	Promise.all([
		step('form', [bin('prettier'), '--check', '--log-level', 'warn', '.'])
			.then(() => step('rules', [bin('eslint'), '.']))
			.then(() => step('nothing unused', [bin('knip')])),
		step('types', ['npm', 'run', '--silent', 'check']).then(() =>
			step('build', [process.execPath, '-e', build])
		)
	])
);
const unit = `${REPORTS}/unit.json`;
await part('unit tests', () =>
	step(
		'unit tests',
		[bin('vitest'), 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`],
		{
			report: unit,
			count: (report) => [report.numPassedTests, report.numFailedTests]
		}
	)
);
if (built) {
	const pages = `${REPORTS}/pages.json`;
	await part('page tests', () =>
		step('page tests', [bin('playwright'), 'test'], {
			aloud: true,
			report: pages,
			env: { JALDI_TEST_REPORT: pages, JALDI_CHROMIUM: CHROMIUM },
			// One that passed only when it was tried again has failed.
			count: ({ stats }) => [stats.expected, stats.unexpected + stats.flaky + stats.skipped]
		})
	);
}
console.log();
for (const { name, wallS, processorS } of took)
	console.log(
		`— ${name}: ${wallS.toFixed(0)} s${processorS === null ? '' : `, ${processorS.toFixed(0)} s of processor time`}`
	);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
