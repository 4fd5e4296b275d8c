import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { summarise } from '../src/lib/bench/trial/trial';
import { USUAL_DRAW } from '../src/lib/bench/trial/trialCase';
import type { Outcome } from '../src/lib/bench/trial/diagnosis';
import { PROVE_FIRST } from '../src/lib/core/path/policy';
import { workOn } from './trialCases';
import { writeCapture } from '../src/lib/core/scope/captureRows';
import { captureOf, makeSignal } from '../src/lib/core/scope/signals.fixture';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

interface Ran {
	status: number | null;
	out: string;
	err: string;
}

/** The command as people run it. */
function jaldi(args: string[], input: string | Buffer = ''): Promise<Ran> {
	const child = spawn(process.execPath, ['cli/jaldi.mjs', ...args], {
		env: { ...process.env, NO_COLOR: '1' }
	});
	const ran: Ran = { status: null, out: '', err: '' };
	child.stdout.setEncoding('utf8').on('data', (text: string) => (ran.out += text));
	child.stderr.setEncoding('utf8').on('data', (text: string) => (ran.err += text));
	child.stdin.on('error', () => undefined);
	child.stdin.end(input);
	return new Promise((resolve) => child.once('close', (status) => resolve({ ...ran, status })));
}
const file = (name: string, content: string | Buffer) => {
	const path = join(folder, name);
	writeFileSync(path, content);
	return path;
};

const LOG = [
	'(1700000000.000000) can0 1A0#0011223344556677',
	'(1700000000.003000) can0 7E0#031902FF00000000',
	'(1700000000.004000) can0 7E8#100B5902FF403514',
	'(1700000000.005000) can0 7E0#3000000000000000',
	'(1700000000.006000) can0 7E8#212FC12187AF0000',
	'(1700000000.007000) can0 7E8#0x',
	'(1700000000.012000) can0 18FECA0B#04FF15030503FFFF'
].join('\n');

describe('jaldi decode', () => {
	it('gives one element for each code, with the published keys, and an error for what it cannot read', async () => {
		const { status, out, err } = await jaldi([
			'decode',
			'403514/2F',
			'nonsense',
			'789/5',
			'lamp 3-4',
			'59 02 FF 40 35 14 2F C1 21 87 AF',
			'--json'
		]);
		expect(status).toBe(1);
		expect(err).toContain('"nonsense" at sign 1');
		const elements = JSON.parse(out);
		expect(elements).toHaveLength(6);
		expect(elements[0]).toEqual({
			input: '403514/2F',
			kind: 'dtc',
			code: 'C0035',
			failureTypeByte: '14',
			failureType: 'circuit short to ground or open',
			failureClass: 'short-to-ground-or-open',
			system: 'chassis',
			definedBy: 'standard',
			corner: 'front-left',
			status: {
				byte: '2F',
				testFailed: true,
				testFailedThisCycle: true,
				pending: true,
				confirmed: true,
				notTestedSinceClear: false,
				failedSinceClear: true,
				notTestedThisCycle: false,
				lampRequested: false
			},
			title: 'Front-left wheel speed sensor circuit'
		});
		expect(elements[1]).toMatchObject({ input: 'nonsense', error: expect.stringContaining('expected') });
		expect(elements[2]).toMatchObject({
			kind: 'j1939',
			spn: 789,
			fmi: 5,
			corner: 'front-left',
			failureClass: 'open'
		});
		expect(elements[3]).toMatchObject({ kind: 'lamp', groups: [3, 4] });
		expect(elements.slice(4).map((e: { code: string }) => e.code)).toEqual(['C0035', 'U0121']);
	});

	it('speaks to people without --json, and says how it is used when it is used wrongly', async () => {
		const [text, none, unknown, help] = await Promise.all([
			jaldi(['decode', 'C1A45-2F']),
			jaldi(['decode']),
			jaldi(['decode', '--nope', 'C0035']),
			jaldi(['--help'])
		]);
		expect(text.status).toBe(0);
		expect(text.out).toContain('signal erratic');
		expect(text.out).toContain('defined by the maker');
		expect([none.status, unknown.status, help.status]).toEqual([2, 2, 0]);
		expect(none.err).toContain('give at least one code');
		expect(help.out).toContain('jaldi bus FILE');
	});
});

describe('jaldi bus', () => {
	it('reads a log from a file, from standard input and compressed, to the same value', async () => {
		const [plain, piped, packed] = await Promise.all([
			jaldi(['bus', file('a.log', LOG), '--json']),
			jaldi(['bus', '-', '--json'], LOG),
			jaldi(['bus', file('a.log.gz', gzipSync(LOG)), '--json'])
		]);
		expect([plain.status, piped.status, packed.status]).toEqual([0, 0, 0]);
		expect(piped.out).toBe(plain.out);
		expect(packed.out).toBe(plain.out);
		expect(JSON.parse(plain.out)).toMatchObject({
			frames: 6,
			badLines: [{ line: 6, reason: expect.stringContaining('second hex digit') }],
			durationS: 0.012,
			exchanges: [
				{
					timeS: 0.003,
					requestId: '7E0',
					responseId: '7E8',
					request: '1902FF',
					response: '5902FF4035142FC12187AF',
					service: 'read code information: codes by status',
					negative: null
				}
			],
			modules: [
				{
					requestId: '7E0',
					responseId: '7E8',
					codes: [{ code: 'C0035', status: { byte: '2F' } }, { code: 'U0121' }]
				}
			],
			broadcasts: [
				{
					source: '0B',
					pgn: 65226,
					codes: [{ spn: 789, fmi: 5, occurrences: 3 }],
					lamps: { warning: { state: 'on' } }
				}
			],
			problems: []
		});
	});

	it('refuses what is no log with the file, the line and what was expected, and wrong usage apart from that', async () => {
		const ran = await Promise.all([
			jaldi(['bus', join(folder, 'missing.log')]),
			jaldi(['bus', file('text.log', 'Dear workshop,\nplease look.')]),
			jaldi(['bus', file('empty.log', '')]),
			jaldi(['bus', file('binary.log', Buffer.from([0x50, 0x4b, 0, 0]))]),
			jaldi(['bus', file('cut.gz', gzipSync(LOG).subarray(0, 60))]),
			jaldi(['bus', folder]),
			jaldi(['bus']),
			jaldi(['bus', file('b.log', LOG), '--pair', '7E0'])
		]);
		expect(ran.map((r) => r.status)).toEqual([1, 1, 1, 1, 1, 1, 2, 2]);
		expect(ran.every((r) => r.out === '')).toBe(true);
		expect(ran[0]?.err).toContain('there is no such file');
		expect(ran[1]?.err).toMatch(/text\.log: line 1, column 1: expected \(seconds\) interface ID#DATA/);
		expect(ran[2]?.err).toContain('it is empty');
		expect(ran[3]?.err).toContain('byte 3 is no text');
		expect(ran[4]?.err).toContain('the compression is damaged');
		expect(ran[5]?.err).toContain('that is a folder');
		expect(ran[7]?.err).toContain('--pair takes two identifiers');
	});

	it('follows a pair that it is given', async () => {
		const log = '(1.0) can0 641#031902FF\n(1.1) can0 651#075902FF4035142F';
		const [without, given] = await Promise.all([
			jaldi(['bus', '-', '--json'], log),
			jaldi(['bus', '-', '--json', '--pair', '641:651'], log)
		]);
		expect(JSON.parse(without.out).exchanges).toEqual([]);
		expect(JSON.parse(given.out).modules).toMatchObject([
			{ requestId: '641', responseId: '651', codes: [{ code: 'C0035' }] }
		]);
	});
});

describe('jaldi tyres', () => {
	it('compares four sizes with the published keys', async () => {
		const { status, out } = await jaldi([
			'tyres',
			'205/55R16',
			'205/55R16',
			'205/65R16',
			'205/65R16',
			'--threshold-kmh',
			'10',
			'--drive',
			'front',
			'--json'
		]);
		expect(status).toBe(0);
		const report = JSON.parse(out);
		expect(Object.keys(report)).toEqual([
			'corners',
			'frontToRear',
			'leftToRight',
			'spreadPercentMax',
			'crossesThresholdAtKmh',
			'text'
		]);
		expect(report.corners[0]).toEqual({
			corner: 'front-left',
			size: '205/55R16',
			diameterMm: 631.9,
			circumferenceMm: 1905.8,
			revsPerKm: 524.7
		});
		expect(report).toMatchObject({
			frontToRear: 0.9391,
			leftToRight: 1,
			spreadPercentMax: 6.49,
			crossesThresholdAtKmh: 154.1
		});
		expect(report.text).toMatch(/cuts power/);
	});

	it('one size is all four; a wrong one names itself, a wrong option how it is used', async () => {
		const [one, wrong, usage] = await Promise.all([
			jaldi(['tyres', 'T125/70D16', '--json']),
			jaldi(['tyres', '205/55R16', '205/55', '205/55R16', '205/55R16']),
			jaldi(['tyres', '205/55R16', '--drive', 'sideways'])
		]);
		expect(JSON.parse(one.out)).toMatchObject({ spreadPercentMax: 0, crossesThresholdAtKmh: null });
		expect(one.out).toContain('temporary spare');
		expect([wrong.status, usage.status]).toEqual([1, 2]);
		expect(wrong.err).toContain('"205/55": expected a tyre size');
		expect(usage.err).toContain('--drive is front, rear or all');
	});
});

describe('jaldi prove', () => {
	const asked = (...more: string[]) =>
		jaldi(['prove', '--returns', '3', '--before-km', '30', ...more, '--json']);

	it('tells the chance that it is only silent, and the kilometres still to drive', async () => {
		const [some, enough] = await Promise.all([
			asked('--after-km', '45'),
			asked('--after-km', '400', '--target', '0.1')
		]);
		const { residualChance, furtherKmNeeded } = JSON.parse(some.out);
		expect(residualChance).toBeCloseTo(0.064, 9);
		expect(furtherKmNeeded).toBeCloseTo(30 * (0.05 ** (-1 / 3) - 1) - 45, 9);
		expect(JSON.parse(enough.out).furtherKmNeeded).toBe(0);
	});

	it('wrong usage says what was expected', async () => {
		const [missing, word, none] = await Promise.all([
			asked(),
			asked('--after-km', 'far'),
			jaldi(['prove', '--returns', '0', '--before-km', '10', '--after-km', '5'])
		]);
		expect([missing.status, word.status, none.status]).toEqual([2, 2, 2]);
		expect(missing.err).toContain('--after-km expects a number');
		expect(word.err).toContain('not "far"');
		expect(none.err).toContain('once or more');
	});
});

describe('jaldi lamp', () => {
	it('splits flashes into groups and folds what is shown again, with the published keys', async () => {
		const shown = ['0', '0.5', '1', '2.5', '3', '3.5', '4', '8', '8.5', '9', '10.5', '11', '11.5', '12'];
		const { status, out } = await jaldi(['lamp', ...shown, '--json']);
		expect(status).toBe(0);
		const read = JSON.parse(out);
		expect(read).toMatchObject({ groups: [3, 4], repeats: 2 });
		expect(read.confidence).toBeGreaterThan(0.95);
		expect(read.gapS.flash).toBeCloseTo(0.5, 6);
		expect(read.gapS.group).toBeCloseTo(1.5, 6);
		expect(read.gapS.cycle).toBeCloseTo(4, 6);
		expect((await jaldi(['lamp', ...shown])).out).toContain('lamp 3-4  shown 2 times');
	});

	it('takes lit and out, says which time it cannot read, and what it needs', async () => {
		const { out } = await jaldi(['lamp', '0:0.2', '0.4:0.6', '1.6:1.8', '--json']);
		expect(JSON.parse(out)).toMatchObject({ groups: [2, 1], repeats: 1, wantsAnother: true });
		const wrong = await jaldi(['lamp', '0', 'soon']);
		expect([wrong.status, wrong.out]).toEqual([1, '']);
		expect(wrong.err).toContain('time 2, "soon"');
		expect((await jaldi(['lamp', '1:0.5'])).status).toBe(1);
		expect((await jaldi(['lamp', '1', '1'])).status).toBe(1);
		expect((await jaldi(['lamp'])).status).toBe(2);
	});
});

describe('jaldi live', () => {
	const rows = Array.from({ length: 600 }, (_, i) => {
		const kmh = Math.min(50, i / 4);
		const gone = i >= 300 && i < 304;
		return [i / 20, kmh, kmh, gone ? 0 : kmh, kmh].map((value) => value.toFixed(2)).join(',');
	});
	const text = `time_s,front_left_kmh,front_right_kmh,rear_left_kmh,rear_right_kmh\n${rows.join('\n')}\n`;

	it('finds a dropout, with the published keys', async () => {
		const [ran, packed] = await Promise.all([
			jaldi(['live', file('drive.csv', text), '--json']),
			jaldi(['live', '-', '--json', '--drive', 'front', '--track-m', '1.5'], gzipSync(text))
		]);
		expect(ran.status).toBe(0);
		const report = JSON.parse(ran.out);
		expect(report).toMatchObject({
			rateHz: expect.closeTo(20, 6),
			durationS: expect.closeTo(29.95, 6),
			channels: ['front_left', 'front_right', 'rear_left', 'rear_right'],
			shortestVisibleS: expect.closeTo(0.05, 6)
		});
		expect(report.findings).toMatchObject([
			{
				type: 'dropout',
				channel: 'rear_left',
				startS: 15,
				endS: 15.15,
				count: 1,
				value: 0,
				text: 'Rear left falls to 0.0 km/h and returns, once, while the others roll on.'
			}
		]);
		expect(report.verdict).toContain('Rear left');
		expect(JSON.parse(packed.out)).toEqual(report);
	});

	it('refuses what is no recording with file, line and column, and wrong usage apart from that', async () => {
		const [bad, none, usage] = await Promise.all([
			jaldi(['live', file('bad.csv', 'time_s,front_left [ells]\n0,1\n1,2\n')]),
			jaldi(['live', join(folder, 'nowhere.csv')]),
			jaldi(['live', file('good.csv', text), '--track-m', 'wide'])
		]);
		expect([bad.status, none.status, usage.status]).toEqual([1, 1, 2]);
		expect(bad.err).toContain('line 1, column 2: "front_left [ells]" has a unit that is not known here');
		expect(none.err).toContain('there is no such file');
		expect(usage.err).toContain('--track-m expects metres');
	});
});

describe('jaldi scope', () => {
	const wave = (missing: number[], seed: number) =>
		makeSignal({
			kind: 'active',
			rateHz: 20_000,
			durationS: 1,
			teeth: 40,
			hz: 160,
			missing,
			snrDb: 25,
			seed
		});
	const csv = () => writeCapture(captureOf(20_000, { front_left: wave([11], 1), front_right: wave([], 2) }));

	it('finds the gap of a ring, held against its mate, from a file or packed from standard input', async () => {
		for (const [args, input] of [
			[[file('ring.csv', csv())], ''],
			[['-'], gzipSync(csv())]
		] as const) {
			const { status, out, err } = await jaldi(['scope', ...args, '--json', '--circumference-m', '2'], input);
			expect([status, err]).toEqual([0, '']);
			const { rateHz, durationS, channels, comparison, verdict } = JSON.parse(out);
			expect(rateHz).toBeCloseTo(20_000, 3);
			expect(durationS).toBe(1);
			expect(channels[0]).toMatchObject({ name: 'front_left', kind: 'active', teethPerRev: 40 });
			expect(channels[0].medianHz).toBeCloseTo(160, 0);
			expect(channels[0].medianKmh).toBeCloseTo(28.8, 0);
			expect(channels[0].findings).toHaveLength(1);
			expect(channels[0].findings[0]).toMatchObject({ type: 'missing-tooth', perRev: true, count: 3 });
			expect(channels[1]).toMatchObject({ kind: 'active', findings: [], teethPerRev: null });
			expect(comparison.reference).toBe('front_right');
			expect(verdict).toBe('front left: a gap in the ring.');
		}
	});

	it('says in words what it found', async () => {
		const { status, out } = await jaldi(['scope', file('ring.csv', csv())]);
		expect(status).toBe(0);
		expect(out).toContain('One gap each turn, 2.0 tooth periods long');
		expect(out).toContain('front_right: active, 0.80 V to 1.60 V');
	});

	it('names file and line of what it cannot read, and refuses options that make no sense', async () => {
		const none = await jaldi(['scope', file('words.csv', 'time_s,front_left_v\nno,numbers\n'), '--json']);
		expect([none.status, none.out]).toEqual([1, '']);
		expect(none.err).toContain('words.csv: line 2');
		expect((await jaldi(['scope', 'x.csv'])).status).toBe(1);
		for (const wrong of [[], ['a', 'b'], ['a', '--teeth', 'many'], ['a', '--circumference-m', '-2']])
			expect((await jaldi(['scope', ...wrong])).status).toBe(2);
	});
});

describe('jaldi trial', () => {
	it('comes to the same with helpers side by side as with one after the other', async () => {
		const args = ['trial', '--cases', '3', '--seed', '3', '--policy', 'parts-first', '--json'];
		const { status, out, err } = await jaldi(args);
		expect([status, err]).toEqual([0, '']);
		const asked = {
			faults: null,
			count: 3,
			seed: 3,
			way: 'parts-first',
			policy: PROVE_FIRST,
			draw: USUAL_DRAW,
			perturb: 0,
			novice: false,
			vehicle: null
		} as const;
		const alone: Outcome[] = [];
		for (const { outcome } of workOn(asked, 0, 1)) {
			if (outcome.brought) alone.push(outcome);
			if (alone.length === 3) break;
		}
		expect(JSON.parse(out)).toEqual(summarise(alone));
	}, 60_000);
});

describe('jaldi vehicle', () => {
	const made = async (...args: string[]) => (await jaldi(['vehicle', 'new', ...args])).out;

	it('makes a description that it then takes, from a file or standard input', async () => {
		const text = await made(
			'--template',
			'car',
			'--sensor',
			'front=passive',
			'--sensor',
			'rear=two-wire',
			'--name',
			'White saloon'
		);
		const { status, out } = await jaldi(['vehicle', 'check', file('saloon.json', text), '--json']);
		const found = JSON.parse(out);
		expect([status, found.id, found.name, found.wheels, found.modules, found.problems]).toEqual([
			0,
			'white-saloon',
			'White saloon',
			4,
			8,
			[]
		]);
		expect(found.assumed).toContain('modules.brake.accessMin');
		expect(JSON.parse(text).wheels.map(({ sensor }: { sensor: string }) => sensor)).toEqual([
			'passive',
			'passive',
			'two-wire',
			'two-wire'
		]);
		const trailer = await made('--template', 'trailer', '--wheels', '2', '--volts', '24');
		const told = await jaldi(['vehicle', 'check', '-'], trailer);
		expect(told.out).toContain('trailer (usual-trailer): 2 wheels, 2 modules');
	});

	it('refuses a bad file whole, with path and reason', async () => {
		const bad = file(
			'bad.json',
			JSON.stringify({ wheels: [{ position: 'front-left', ringTeeth: 'many' }], wings: 2 })
		);
		const { status, out } = await jaldi(['vehicle', 'check', bad, '--json']);
		const { problems, wheels } = JSON.parse(out);
		expect([status, wheels]).toEqual([1, 0]);
		expect(problems.map(({ path }: { path: string }) => path)).toEqual(['wheels.front-left.ringTeeth', '']);
		expect((await jaldi(['vehicle', 'check', file('words.json', 'no json')])).out).toContain('no JSON');
	});

	it('refuses what makes no vehicle as wrong usage', async () => {
		for (const wrong of [
			[],
			['paint'],
			['check'],
			['new'],
			['new', '--template', 'boat'],
			['new', '--template', 'trailer', '--axles', '4'],
			['new', '--template', 'car', '--wheels', '5'],
			['new', '--template', 'car', '--sensor', 'roof=passive'],
			['new', '--template', 'car', '--sensor', 'front=magic'],
			['new', '--template', 'car', '--volts', '48']
		])
			expect((await jaldi(['vehicle', ...wrong])).status, wrong.join(' ')).toBe(2);
	});

	it('trials run on it, and on nothing that is none', async () => {
		const saloon = file('trial-saloon.json', await made('--template', 'car', '--sensor', 'front=passive'));
		const { status, out } = await jaldi([
			'trial',
			'--cases',
			'2',
			'--seed',
			'5',
			'--policy',
			'parts-first',
			'--vehicle',
			saloon,
			'--json'
		]);
		expect([status, JSON.parse(out).cases]).toEqual([0, 2]);
		const none = await jaldi(['trial', '--cases', '1', '--vehicle', file('none.json', '{"wheels":[]}')]);
		expect(none.status).toBe(1);
		expect(none.err).toContain('none.json: wheels:');
		const lamp = await made('--template', 'lamp-only');
		expect((await jaldi(['trial', '--cases', '1', '--vehicle', file('lamp.json', lamp)])).status).toBe(2);
	}, 60_000);
});
