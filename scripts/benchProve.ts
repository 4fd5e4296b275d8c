import { createClient } from '@libsql/client';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { PASSWORD } from '../demo/shop';

/** Copies of the demo shop beside each other. */
const COPIES = 1000;
const ROUNDS = 25;
const PAPERS = 7;

/** What starts the built server: it knows where this project lies, and is not bundled. */
export interface BuiltServer {
	buildWhenStale: typeof import('./build.mjs').buildWhenStale;
	prepareShop: typeof import('./shop.mjs').prepareShop;
	startServer: typeof import('./shop.mjs').startServer;
}

/** A port that nothing listens on. */
const freePort = (): Promise<number> =>
	new Promise((resolve, reject) => {
		const probe = createServer();
		probe.once('error', reject);
		probe.listen(0, '127.0.0.1', () => {
			const address = probe.address();
			const port = typeof address === 'object' && address ? address.port : 0;
			probe.close(() => resolve(port));
		});
	});

type Row = (name: string, ours: string, reference: string, ratio: string) => void;
const at = (numbers: number[], share: number) =>
	[...numbers].sort((a, b) => a - b)[Math.min(numbers.length - 1, Math.floor(numbers.length * share))] ?? NaN;
const ms = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`;

/** The same cases again and again under other ids, as a shop of many years has them. @returns how many there are then */
async function multiply(url: string): Promise<number> {
	const db = createClient({ url });
	const other = (column: string) => `substr(${column}, 1, 22) || printf('%04d', n.value)`;
	const copies = `json_each('[${Array.from({ length: COPIES - 1 }, (_, i) => i + 1).join(',')}]') as n`;
	await db.execute(
		`insert into case_record (id, number, vehicle_id, created_at, wanted, signed, summary, summary_seq, summary_known)
		select ${other('c.id')}, c.number + 1000 * n.value, vehicle_id, created_at, wanted, signed, summary, summary_seq, summary_known
		from case_record c, ${copies}`
	);
	await db.execute(
		`insert into entry (id, case_id, seq, kind, version, author_id, author_name, observed_at, received_at, supersedes, payload, previous_hash, hash)
		select ${other('e.id')}, ${other('e.case_id')}, seq, kind, version, author_id, author_name, observed_at, received_at, supersedes, payload, previous_hash, hash
		from entry e, ${copies}`
	);
	await db.execute(
		`insert into case_code (case_id, code, failure_type, module_name, verdict)
		select ${other('k.case_id')}, code, failure_type, module_name, verdict from case_code k, ${copies}`
	);
	const { rows } = await db.execute('select count(*) as n from case_record');
	db.close();
	return Number(rows[0]?.['n']);
}

async function signIn(origin: string): Promise<string> {
	const response = await fetch(`${origin}/sign-in?/in`, {
		method: 'POST',
		headers: { origin, 'x-sveltekit-action': 'true', 'content-type': 'application/x-www-form-urlencoded' },
		body: new URLSearchParams({ username: 'marit', password: PASSWORD })
	});
	const cookies = response.headers.getSetCookie().map((one) => one.split(';')[0]);
	if (cookies.length === 0) throw new Error('the bench could not sign in');
	return cookies.join('; ');
}

/** Proof, papers and figures of a shop of many cases, through the built server, against a request that does nothing. */
export async function benchProve(
	row: Row,
	folder: string,
	{ buildWhenStale, prepareShop, startServer }: BuiltServer
): Promise<void> {
	buildWhenStale();
	const data = join(folder, 'shop');
	const port = await freePort();
	prepareShop({ data, firstPort: port + 1 });
	const cases = await multiply(`file:${join(data, 'jaldi.db')}`);
	const { origin, server } = await startServer({ data, port, logLevel: 'silent' });
	try {
		const cookie = await signIn(origin);
		const get = async (path: string) => {
			const began = performance.now();
			const response = await fetch(origin + path, { headers: { cookie } });
			await response.arrayBuffer();
			if (!response.ok) throw new Error(`${path} answered ${response.status}`);
			return performance.now() - began;
		};
		const timesOf = async (path: string, rounds: number) => {
			const all: number[] = [];
			for (let i = 0; i < rounds; i++) all.push(await get(path));
			return all;
		};
		const floor = await (await fetch(`${origin}/closed`, { headers: { cookie } })).text();
		const signed = /\/cases\/[0-9A-Z]{26}/.exec(floor)?.[0];
		if (!signed) throw new Error('no signed case in the demo shop');
		const first = await get(`${signed}/report.pdf`);
		const nothing = at(await timesOf('/healthz', ROUNDS), 0.5);
		const compare = (name: string, took: number, words: string, reference: number) =>
			row(name, ms(took), `${ms(reference)} ${words}`, `${(took / reference).toFixed(1)} ×`);
		const papers = await timesOf(`${signed}/report.pdf`, PAPERS);
		const page = at(await timesOf(`${signed}/hand-over`, ROUNDS), 0.5);
		compare('report as PDF, first after the start', first, 'the same as a page', page);
		compare('report as PDF (slowest of seven)', Math.max(...papers), 'the same as a page', page);
		for (const [name, path] of [
			['prove', `${signed}/prove/__data.json`],
			['hand over', `${signed}/hand-over/__data.json`],
			['the floor', '/__data.json'],
			['how it goes', '/figures/__data.json']
		] as const)
			compare(
				`data of ${name}, ${cases} cases (95 %)`,
				at(await timesOf(path, ROUNDS), 0.95),
				'a request for nothing',
				nothing
			);
	} finally {
		server.kill('SIGTERM');
	}
}
