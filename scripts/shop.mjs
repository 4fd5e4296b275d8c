// Starts a demo shop: its database, its bench vehicles and the server. Used by the demo, the tests and the pictures.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { secretOf } from '../src/lib/care/secretOf.js';

const START_MS = 60_000;
const LEAST_ASKED = 100;
/** One that takes longer is asked again. */
const ANSWER_MS = 10_000;
const DIE_WITH_PARENT = './scripts/dieWithParent.mjs';
/** @type {(script: string, args: string[]) => [string, string[]]} */
const run = (script, args) => [process.execPath, ['--import', 'tsx', script, ...args]];

/** @param {string} origin @returns {Promise<string | null>} why it does not answer well; null = it does */
const whyNot = (origin) =>
	fetch(`${origin}/healthz`, { signal: AbortSignal.timeout(ANSWER_MS) }).then(
		({ ok, status }) => (ok ? null : `it answered ${status}`),
		(error) => String(error.cause ?? error)
	);

/**
 * @param {string} origin
 * @param {import('node:child_process').ChildProcess} server
 */
async function untilHealthy(origin, server) {
	// By a clock that stands still while the whole machine does, and never after a few tries alone.
	const deadline = performance.now() + START_MS;
	for (let asked = 1; ; asked++) {
		const { exitCode, signalCode } = server;
		if (exitCode !== null || signalCode !== null)
			throw new Error(
				`The server stopped while starting (${signalCode ?? `exit code ${exitCode}`}); its words are above.`
			);
		const why = await whyNot(origin);
		if (why === null) return;
		if (performance.now() > deadline && asked > LEAST_ASKED)
			throw new Error(`The server did not answer at ${origin} in ${asked} tries, and runs still: ${why}.`);
		await new Promise((resolve) => setTimeout(resolve, 50));
	}
}

/**
 * Adds somebody to the shop of a folder, as `npm run member` does.
 * @param {string} data @param {string} username @param {string} name @param {string} role @param {string} password
 */
export function addPerson(data, username, name, role, password) {
	mkdirSync(data, { recursive: true });
	const [node, args] = run('scripts/member.ts', [username, name, role]);
	const env = {
		...process.env,
		JALDI_DATABASE_URL: `file:${join(data, 'jaldi.db')}`,
		JALDI_SECRET: secretOf(data)
	};
	const { status } = spawnSync(node, args, { input: password, stdio: ['pipe', 'ignore', 'inherit'], env });
	if (status !== 0) throw new Error(`${username} could not be added; see above.`);
}

/**
 * The server alone, on a shop that is already made.
 * @param {{ data: string, port: number, logLevel?: string, database?: string, shops?: string }} options `database` where it does not
 * lie in the folder; `shops`: the file of a chain, in place of one shop
 */
export async function startServer({ data, port, logLevel = 'warn', database, shops }) {
	const origin = `http://127.0.0.1:${port}`;
	mkdirSync(data, { recursive: true });
	const which = shops
		? { JALDI_SHOPS: resolve(shops) }
		: {
				ORIGIN: origin,
				JALDI_DATABASE_URL: database ?? `file:${resolve(data, 'jaldi.db')}`,
				JALDI_SECRET: secretOf(data)
			};
	if ((await whyNot(origin)) === null)
		throw new Error(`Something answers at ${origin} already: stop it, or choose another port with PORT.`);
	// Such as --cpu-prof, to see where the time goes.
	const flags = (process.env.JALDI_NODE_FLAGS ?? '').split(' ').filter(Boolean);
	const server = spawn(process.execPath, [...flags, '--import', DIE_WITH_PARENT, 'scripts/start.mjs'], {
		stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
		env: {
			...process.env,
			HOST: '127.0.0.1',
			PORT: String(port),
			...which,
			JALDI_LOG_LEVEL: process.env.JALDI_LOG_LEVEL ?? logLevel
		}
	});
	try {
		await untilHealthy(origin, server);
	} catch (error) {
		server.kill('SIGTERM');
		throw error;
	}
	return { origin, server };
}

/**
 * The bench says when its vehicles answer; one whose ports are taken says so and stops.
 * @param {import('node:child_process').ChildProcess} bench
 */
const untilBench = (bench) =>
	new Promise((resolve, reject) => {
		bench.once('message', resolve);
		bench.once('exit', () =>
			reject(
				new Error(
					'The simulated vehicles could not start: their ports may be taken. Choose others with JALDI_BENCH_PORT.'
				)
			)
		);
	});

/**
 * Makes the shop of a folder, or brings it to these ports.
 * @param {{ data: string, firstPort: number }} options
 */
export function prepareShop({ data, firstPort }) {
	mkdirSync(data, { recursive: true });
	const made = join(data, 'made');
	if (existsSync(made) && readFileSync(made, 'utf8') === String(firstPort)) return;
	const [node, args] = run('demo/prepare.ts', [
		'--data',
		data,
		'--secret',
		secretOf(data),
		'--first-port',
		String(firstPort)
	]);
	if (spawnSync(node, args, { stdio: ['ignore', 'inherit', 'inherit'] }).status !== 0) {
		throw new Error('The demo shop could not be made; see above.');
	}
}

/**
 * Starts everything; resolves once the server answers. `stop` ends it all.
 * @param {{ data: string, port: number, firstPort: number, logLevel?: string }} options
 */
export async function startShop({ data, port, firstPort, logLevel }) {
	prepareShop({ data, firstPort });
	const [node, args] = run('demo/bench.ts', ['--data', data, '--first-port', String(firstPort)]);
	const bench = spawn(node, ['--import', DIE_WITH_PARENT, ...args], {
		stdio: ['ignore', 'ignore', 'inherit', 'ipc']
	});
	try {
		await untilBench(bench);
		const { origin, server } = await startServer({ data, port, logLevel });
		const stop = () => {
			bench.kill('SIGTERM');
			server.kill('SIGTERM');
		};
		return { origin, server, bench, stop };
	} catch (error) {
		bench.kill('SIGTERM');
		throw error;
	}
}
