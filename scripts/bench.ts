// npm run bench: how fast what ships is, as ratios against a plain reference in the same run; the table goes to docs/speed.md.
import { sql } from 'drizzle-orm';
import { createReadStream, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { execFileSync } from 'node:child_process';
import { createInterface } from 'node:readline';
import { shippedPacks } from '../library/codes';
import type { CodeDefinition } from '../library/codePack';
import { BusAnalysis } from '../src/lib/core/bus/analyseLog';
import { answer } from '../src/lib/case/codes/answerText';
import { CodeLibrary } from '../src/lib/server/db/codeLibrary';
import { openDatabase } from '../src/lib/server/db/open';
import { benchLive } from './benchLive';
import { benchProve, type BuiltServer } from './benchProve';
import { benchReason } from './benchReason';
import { benchScope } from './benchScope';
import { benchVehicles } from './benchVehicle';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-bench-'));
const FRAMES = 1_500_000;
const DEFINITIONS = 50_000;
const PIECE = 1 << 18;

const median = (numbers: number[]) => [...numbers].sort((a, b) => a - b)[numbers.length >> 1] ?? NaN;
const percentile = (numbers: number[], share: number) =>
	[...numbers].sort((a, b) => a - b)[Math.min(numbers.length - 1, Math.floor(numbers.length * share))] ?? NaN;
const rows: [name: string, ours: string, reference: string, ratio: string][] = [];
const row = (...one: (typeof rows)[number]) => {
	rows.push(one);
	const [name, ours, reference, ratio] = one;
	console.log(`${name.padEnd(46)} ${ours.padStart(18)} ${reference.padStart(24)} ${ratio.padStart(10)}`);
};

/** Traffic as a busy vehicle has it, one frame in `every` of four a diagnostic conversation. */
function writeLog(name: string, every: number): string {
	const talk = [
		'7E0#031902FF00000000',
		'7E8#100B5902FF403514',
		'7E0#3000000000000000',
		'7E8#212FC12187AF0000'
	];
	const ids = ['0C0', '1A4', '2B1', '18FEF100', '3E9', '120'];
	const lines: string[] = [];
	for (let i = 0, said = 0; i < FRAMES; i++) {
		const time = (1_700_000_000 + i * 0.0002).toFixed(6);
		const data = ((i * 2_654_435_761) >>> 0).toString(16).toUpperCase().padStart(8, '0').repeat(2);
		lines.push(
			`(${time}) bus0 ${i % every < 4 && every > 4 ? talk[i % every] : every <= 4 ? talk[said++ % 4] : `${ids[i % 6]}#${data}`}`
		);
	}
	const path = join(folder, name);
	writeFileSync(path, lines.join('\n') + '\n');
	return path;
}

async function analyse(path: string) {
	const analysis = new BusAnalysis();
	for await (const piece of createReadStream(path, { highWaterMark: PIECE })) analysis.push(piece);
	analysis.end();
	return analysis;
}

/** The reference: the same file, line by line, and nothing done with the lines. */
async function plainRead(path: string): Promise<number> {
	let lines = 0;
	for await (const line of createInterface({ input: createReadStream(path, { highWaterMark: PIECE }) }))
		lines += line.length > 0 ? 1 : 0;
	return lines;
}

async function seconds(work: () => Promise<unknown>, times = 3): Promise<number> {
	const all: number[] = [];
	for (let i = 0; i < times; i++) {
		const began = performance.now();
		await work();
		all.push((performance.now() - began) / 1000);
	}
	return median(all);
}

async function benchBus(): Promise<void> {
	for (const [name, every] of [
		['frame log, 8 % diagnostics', 50],
		['frame log, nothing but diagnostics', 4]
	] as const) {
		const path = writeLog(`${every}.log`, every);
		globalThis.gc?.();
		const before = process.memoryUsage();
		const held = await analyse(path);
		globalThis.gc?.();
		const after = process.memoryUsage();
		const kept = after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers;
		const ours = FRAMES / (await seconds(() => analyse(path)));
		const plain = FRAMES / (await seconds(() => plainRead(path)));
		row(
			name,
			`${(ours / 1e6).toFixed(2)} M frames/s`,
			`${(plain / 1e6).toFixed(2)} M lines read/s`,
			`${(ours / plain).toFixed(2)} ×`
		);
		const size = statSync(path).size;
		row(
			`  memory kept, ${held.exchanges.length} exchanges`,
			`${(kept / 1e6).toFixed(0)} MB`,
			`${(size / 1e6).toFixed(0)} MB of log`,
			`${(kept / size).toFixed(2)} ×`
		);
	}
}

/** As many definitions as a large shop could bring in, made of the shipped ones. */
function manyDefinitions(): CodeDefinition[] {
	const shipped = shippedPacks.flatMap((pack) => pack.definitions);
	return Array.from({ length: DEFINITIONS }, (_, i): CodeDefinition => {
		const like = shipped[i % shipped.length]!;
		const code = `${'PCBU'[(i >> 14) & 3]}${1 + ((i >> 13) & 1)}${(i & 0xfff).toString(16).toUpperCase().padStart(3, '0')}`;
		return {
			...like,
			code,
			failureType: ((i >> 12) & 0xff).toString(16).toUpperCase().padStart(2, '0'),
			title: `${like.title}, variant ${i}`
		};
	});
}

/** The decoder's own work is measured, not that of the threads. */
const none = () => Promise.resolve([]);
const NO_CASES = { casesWith: none, search: none, named: none };

async function benchLibrary(): Promise<void> {
	const db = await openDatabase(`file:${join(folder, 'bench.db')}`);
	const library = new CodeLibrary(db);
	await library.prepare();
	const unique = new Map(manyDefinitions().map((d) => [`${d.code}-${d.failureType}`, d]));
	await library.importPack(
		{
			format: 'jaldi-code-pack',
			conditions: 'stated',
			version: 1,
			id: 'bench',
			name: 'Bench',
			source: 'made',
			date: '2026-11-25',
			maker: null,
			definitions: [...unique.values()]
		},
		{ id: 'bench', name: 'Bench' }
	);
	const timesOf = async (texts: string[], work: (text: string) => Promise<unknown>) => {
		const all: number[] = [];
		for (let round = 0; round < 5; round++)
			for (const text of texts) {
				const began = performance.now();
				await work(text);
				if (round > 0) all.push(performance.now() - began);
			}
		return all;
	};
	const lookUp = () => db.all(sql`SELECT * FROM code_definition WHERE id = 4711`);
	const scan = (text: string) =>
		db.all(sql`SELECT count(*) FROM code_definition WHERE title || causes || notes LIKE ${`%${text}%`}`);
	const codes = [
		'C0045',
		'C0045-13',
		'404513/2F',
		'59 02 FF 40 35 14 2F C1 21 87 AF',
		'SPN 789 FMI 5',
		'U0121-87',
		'lamp 3-4',
		'C1A45'
	];
	const words = [
		'rear left wheel sp',
		'steering angle',
		'circuit',
		'corroded',
		'zero never set',
		'variant 4711',
		'pump motor',
		'w',
		'kick panel',
		'wheel'
	];
	const decoded = await timesOf(codes, (text) => answer(library, NO_CASES, text, null));
	const searched = await timesOf(words, (text) => library.search(text));
	const looked = median(await timesOf(codes, lookUp));
	const scanned = median(await timesOf(words, scan));
	const ms = (value: number) => `${value.toFixed(2)} ms`;
	row(
		'decoder, one answer (median)',
		ms(median(decoded)),
		`${ms(looked)} one row by id`,
		`${(median(decoded) / looked).toFixed(1)} ×`
	);
	row(
		'decoder, one answer (95 %)',
		ms(percentile(decoded, 0.95)),
		`${ms(looked)} one row by id`,
		`${(percentile(decoded, 0.95) / looked).toFixed(1)} ×`
	);
	row(
		`search in ${unique.size} definitions (median)`,
		ms(median(searched)),
		`${ms(scanned)} plain scan`,
		`${(median(searched) / scanned).toFixed(2)} ×`
	);
	row(
		`search in ${unique.size} definitions (95 %)`,
		ms(percentile(searched, 0.95)),
		`${ms(scanned)} plain scan`,
		`${(percentile(searched, 0.95) / scanned).toFixed(2)} ×`
	);
	db.$client.close();
}

/** The command as a whole process: nothing but its start, and a log of nothing but diagnostics. */
async function benchCommand(): Promise<void> {
	const run = (args: string[]) =>
		seconds(
			() => Promise.resolve(execFileSync(process.execPath, args, { stdio: 'pipe', maxBuffer: 1 << 30 })),
			5
		);
	const ms = (value: number) => `${(value * 1000).toFixed(0)} ms`;
	const nothing = await run(['-e', '0']);
	const started = await run(['cli/jaldi.mjs', 'decode', 'C0045']);
	row(
		'jaldi decode C0045, the whole process',
		ms(started),
		`${ms(nothing)} node alone`,
		`${(started / nothing).toFixed(1)} ×`
	);
	const path = writeLog('command.log', 4);
	const whole = await run(['cli/jaldi.mjs', 'bus', path, '--json']);
	const plain = FRAMES / (await seconds(() => plainRead(path)));
	row(
		'jaldi bus --json, nothing but diagnostics',
		`${(FRAMES / whole / 1e3).toFixed(0)} k frames/s`,
		`${(plain / 1e6).toFixed(2)} M lines read/s`,
		`${(FRAMES / whole / plain).toFixed(2)} ×`
	);
}

const SPEED = 'docs/speed.md';

function tableOf(): string {
	const { length: cores } = cpus();
	const lines = rows.map((cells) => `| ${cells.map((cell) => cell.trim()).join(' | ')} |`);
	return `# How fast it is

Written by \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}, ${cores} cores, Node ${process.versions.node}: the built code, each line beside
a plain reference in the same run. The ratio is what to compare; the figures beside it are those of one machine.

| What | Jaldi | Reference | Ratio |
| --- | --- | --- | --- |
${lines.join('\n')}
`;
}

export async function main(server: BuiltServer): Promise<void> {
	try {
		benchLive(row);
		benchReason(row);
		benchScope(row);
		benchVehicles(row);
		await benchBus();
		await benchCommand();
		await benchLibrary();
		await benchProve(row, folder, server);
		writeFileSync(SPEED, tableOf());
		console.log(`\nThe table stands in ${SPEED}.`);
	} finally {
		rmSync(folder, { recursive: true });
	}
}
