import { describe, expect, it } from 'vitest';
import { writeCaseFile } from '../src/lib/case/thread/caseFile';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../src/lib/case/thread/threads.fixture';
import { plan } from './plan';
import { trial } from './trial';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll } from 'vitest';
import { WrongUsage } from './command';
import { runCommand } from './run.fixture';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-reason-'));
afterAll(() => rmSync(folder, { recursive: true }));
const file = (name: string, text: string) => {
	const path = join(folder, name);
	writeFileSync(path, text);
	return path;
};

const ran = runCommand;

function openLead(): string {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' });
	maker.listen().scan([
		[BRAKE, OPEN, 0x2f],
		[CLUSTER, 'C41581', 0x2f]
	]);
	return writeCaseFile(maker.thread);
}

describe('jaldi plan', () => {
	it('gives hypotheses, the three next tests, and no stop while a test is worth it', async () => {
		const { status, out } = await ran(plan, [file('case.json', openLead()), '--json']);
		expect(status).toBe(0);
		const { hypotheses, next, stop } = JSON.parse(out);
		expect(stop).toBeNull();
		expect(next).toHaveLength(3);
		for (const one of next) {
			expect(one.minutes).toBeGreaterThan(0);
			expect(one.bitsPerMinute).toBeGreaterThan(0);
			expect(one.why).toMatch(/\.|\?/);
		}
		// An open circuit at that wheel: nothing of the ring, and of no other wheel.
		expect(hypotheses[0].fault).toMatch(/^rear left: /);
		const there = hypotheses.filter(({ fault }: { fault: string }) => fault.startsWith('rear left'));
		expect(
			there.reduce((sum: number, one: { probability: number }) => sum + one.probability, 0)
		).toBeGreaterThan(0.7);
	});

	it('tells people the same in a table', async () => {
		const { out } = await ran(plan, [file('case.json', openLead())]);
		expect(out).toMatch(/What is left\n\s+\d+\.\d %/);
		expect(out).toMatch(/Test next\n\s+\d+ min /);
	});

	it.each([
		['{"format":"jaldi-case"}', /entries/],
		['{"format":"jaldi-case","version":1,"entries":[]}', /entries/],
		['no case at all', /no JSON/]
	])('says what is wrong with %s', async (text, words) => {
		const { status, err } = await ran(plan, [file('wrong.json', text)]);
		expect(status).toBe(1);
		expect(err).toMatch(words);
	});

	it('refuses a case of a vehicle that it does not know', async () => {
		const maker = new ThreadMaker().listen();
		const { status, err } = await ran(plan, [file('unknown.json', writeCaseFile(maker.thread))]);
		expect(status).toBe(1);
		expect(err).toContain('which type of vehicle');
	});
});

describe('jaldi trial', () => {
	const FAULTS = JSON.stringify([
		{ faults: [{ position: 'rear-left', link: 'harness', mode: 'open', severity: 1, intermittentKm: null }] },
		{
			faults: [
				{ position: null, link: 'module-supply', mode: 'fuse-blown', severity: 1, intermittentKm: null }
			]
		}
	]);

	it('runs the cases of a file, the same each time, and finds what is simply broken', async () => {
		const args = ['--faults', file('faults.json', FAULTS), '--seed', '2', '--json'];
		const [first, again] = [await ran(trial, args), await ran(trial, args)];
		expect(first.status).toBe(0);
		expect(again.out).toBe(first.out);
		const summary = JSON.parse(first.out);
		expect(summary).toMatchObject({ cases: 2, wrongPartRate: 0, unresolvedRate: 0, top1Rate: 1 });
		for (const key of ['meanMinutes', 'p90Minutes', 'meanTests']) expect(summary[key]).toBeGreaterThan(0);
	}, 60_000);

	it('works on every case of a file, also on one that shows nothing on the road', async () => {
		const hidden = [
			{
				faults: [{ position: 'cluster', link: 'module-supply', mode: 'ground-resistance', severity: 0 }]
			}
		];
		const { out } = await ran(trial, ['--faults', file('hidden.json', JSON.stringify(hidden)), '--json']);
		const summary = JSON.parse(out);
		expect(summary.cases).toBe(1);
		expect(summary.meanTests).toBeGreaterThan(1);
	}, 60_000);

	it('replaces by the code where that is asked for', async () => {
		const file2 = file(
			'plug.json',
			JSON.stringify([{ faults: [{ position: 'rear-left', link: 'gap', mode: 'rust', severity: 0.8 }] }])
		);
		const { out } = await ran(trial, ['--faults', file2, '--policy', 'parts-first', '--json']);
		const summary = JSON.parse(out);
		expect(summary.wrongPartRate).toBe(1);
		expect(summary.harmRate).toBeGreaterThan(0);
	}, 60_000);

	it('draws as asked, on vehicles with tolerances, by somebody who is not always careful', async () => {
		const args = ['--cases', '2', '--seed', '6', '--draw', 'uniform', '--doubles', '1', '--unknown', '1'];
		const more = ['--perturb', '0.2', '--novice', '--policy', 'parts-first', '--json'];
		const { out } = await ran(trial, [...args, ...more]);
		const summary = JSON.parse(out);
		expect(summary.cases).toBe(2);
		// Who replaces by the code never says that something is not described, nor how sure it is.
		expect(summary.unknownNamedRate).toBe(0);
		expect(summary.calibration).toContainEqual({ from: 0.9, to: 1, claims: 0, true: 0 });
	}, 60_000);

	it('leaves out a case of a file that no vehicle can have, and says how many', async () => {
		const text = JSON.stringify([
			{ faults: [{ position: 'axle1-left', link: 'ring', mode: 'encoder-reversed' }] },
			{ faults: [{ position: 'rear-left', link: 'gap', mode: 'rust' }] }
		]);
		const { out } = await ran(trial, [
			...['--faults', file('some.json', text)],
			...['--policy', 'parts-first', '--json']
		]);
		expect(JSON.parse(out)).toMatchObject({ cases: 1, skipped: 1 });
	}, 60_000);

	it('lists every fault by link and mode', async () => {
		const { out } = await ran(trial, ['--list-faults']);
		expect(out).toMatch(/harness\s+open\s/);
		expect(out.trim().split('\n').length).toBeGreaterThan(80);
	});

	it.each([
		[['--policy', 'luck'], /--policy is/],
		[['--cases', '0'], /--cases/],
		[['--cases', 'many'], /--cases/],
		[['--seed', '-1'], /--seed/],
		[['--proving', '2'], /--proving/],
		[['extra'], /no place/],
		[['--draw', 'even'], /--draw is odds or uniform/],
		[['--doubles', '2'], /--doubles is a share/],
		[['--unknown', ''], /--unknown is a share/],
		[['--perturb', 'a lot'], /--perturb is a share/],
		[['--system', 'sails'], /--system is wheel-speed, supply/],
		[['--faults', 'x.json', '--doubles', '1'], /--doubles says what is drawn/]
	])('refuses %j', async (args, words) => {
		await expect(runCommand(trial, args)).rejects.toThrow(WrongUsage);
		await expect(runCommand(trial, args)).rejects.toThrow(words);
	});

	it('names what is wrong in a file of faults', async () => {
		const wrong = JSON.stringify([{ faults: [{ position: null, link: 'ring', mode: 'melted' }] }]);
		const { status, err } = await ran(trial, ['--faults', file('melted.json', wrong)]);
		expect(status).toBe(1);
		expect(err).toMatch(/case 1: there is no mode "melted" of ring/);
	});
});
