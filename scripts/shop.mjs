// Starts a demo shop: its database, its bench vehicles and the server. Used by the demo, the tests and the pictures.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const START_MS = 60_000;
const run = (script, args) => [process.execPath, ['--import', 'tsx', script, ...args]];

function secretOf(data) {
	const file = join(data, 'secret');
	if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
	return readFileSync(file, 'utf8');
}

async function untilHealthy(origin, server) {
	const deadline = Date.now() + START_MS;
	for (;;) {
		if (server.exitCode !== null) throw new Error('The server stopped while starting; its words are above.');
		const healthy = await fetch(`${origin}/healthz`).then(
			(response) => response.ok,
			() => false
		);
		if (healthy) return;
		if (Date.now() > deadline) throw new Error(`The server did not answer at ${origin} within a minute.`);
		await new Promise((resolve) => setTimeout(resolve, 50));
	}
}

/** Starts everything; resolves once the server answers. `stop` ends it all. */
export async function startShop({ data, port, firstPort, logLevel = 'warn' }) {
	mkdirSync(data, { recursive: true });
	const origin = `http://127.0.0.1:${port}`;
	const secret = secretOf(data);
	const [node, prepare] = run('demo/prepare.ts', [
		'--data',
		data,
		'--secret',
		secret,
		'--first-port',
		String(firstPort)
	]);
	if (spawnSync(node, prepare, { stdio: ['ignore', 'inherit', 'inherit'] }).status !== 0) {
		throw new Error('The demo shop could not be made; see above.');
	}
	const [, benchArgs] = run('demo/bench.ts', ['--data', data, '--first-port', String(firstPort)]);
	const bench = spawn(node, benchArgs, { stdio: ['ignore', 'ignore', 'inherit'] });
	const server = spawn(node, ['build/index.js'], {
		stdio: ['ignore', 'inherit', 'inherit'],
		env: {
			...process.env,
			NODE_ENV: 'production',
			HOST: '127.0.0.1',
			PORT: String(port),
			ORIGIN: origin,
			JALDI_DATABASE_URL: `file:${join(data, 'jaldi.db')}`,
			JALDI_SECRET: secret,
			JALDI_LOG_LEVEL: process.env.JALDI_LOG_LEVEL ?? logLevel
		}
	});
	const stop = () => {
		bench.kill('SIGTERM');
		server.kill('SIGTERM');
	};
	try {
		await untilHealthy(origin, server);
	} catch (error) {
		stop();
		throw error;
	}
	return { origin, server, bench, stop };
}
