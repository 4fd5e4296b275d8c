import { describe, expect, it } from 'vitest';
import { faults } from '../../../../library/faults';
import { casesOfFile, listFaults } from './faultFile';
import { casesFrom } from './trial';
import type { TrialCase } from './trialCase';

const file = (...cases: object[]) => JSON.stringify(cases);
const one = (fault: object) => file({ faults: [fault] });

describe('a file of faults', () => {
	it('names a fault by link and mode, at its wheel, with its severity and how it comes and goes', () => {
		const read = casesOfFile(
			one({ position: 'rear-left', link: 'ring', mode: 'debris', severity: 0.3, intermittentKm: 4 }),
			null,
			1
		);
		expect(read.ok && read.value.cases[0]?.faults).toEqual([
			{ id: 'encoder-dust', at: 'rear-left', severity: 0.3, everyKm: 4 }
		]);
	});

	it('finds a vehicle that can have all of a case’s faults, and a place where none is named', () => {
		const read = casesOfFile(
			file({
				faults: [
					{ position: 'axle2-right', link: 'sensor', mode: 'coil-open' },
					{ position: null, link: 'module-supply', mode: 'fuse-blown' }
				]
			}),
			3,
			5
		);
		if (!read.ok) throw new Error(read.error);
		expect(read.value.cases).toHaveLength(3);
		for (const { type, faults: found } of read.value.cases) {
			expect(type.id).toBe('hexley-drover');
			expect(type.harness.fuses.map(({ name }) => name)).toContain(found[1]?.at);
		}
	});

	it.each([
		['no JSON', 'nonsense', /no JSON/],
		['a severity beyond one', one({ link: 'ring', mode: 'debris', severity: 2 }), /severity/],
		['a link that there is none of', one({ link: 'flux', mode: 'debris' }), /link/],
		['a mode of another link', one({ link: 'gap', mode: 'coil-open' }), /case 1.*--list-faults/]
	])('refuses %s', (_, text, words) => {
		const read = casesOfFile(text, null, 1);
		expect(!read.ok && read.error).toMatch(words);
	});

	it('leaves out and counts what no vehicle can have, and goes on with the others until there are enough', () => {
		const text = file(
			{ faults: [{ position: 'axle1-left', link: 'ring', mode: 'encoder-reversed' }] },
			{ faults: [{ position: 'rear-left', link: 'ring', mode: 'debris' }] }
		);
		const [each, five] = [casesOfFile(text, null, 1), casesOfFile(text, 5, 1)];
		expect(each.ok && [each.value.cases.length, each.value.skipped]).toEqual([1, 1]);
		expect(five.ok && [five.value.cases.length, five.value.skipped]).toEqual([5, 1]);
	});

	it('lists every fault of the library, each pair of link and mode once', () => {
		const list = listFaults();
		expect(list).toHaveLength(faults.size);
		expect(new Set(list.map(({ link, mode }) => `${link}/${mode}`)).size).toBe(faults.size);
	});
});

function casesOf(count: number, seed: number): TrialCase[] {
	const cases = casesFrom(seed);
	return Array.from({ length: count }, () => cases.next().value as TrialCase);
}

describe('the cases of a trial', () => {
	it('are the same for the same seed, whatever is done with them, and others for another', () => {
		expect(casesOf(30, 4)).toEqual(casesOf(30, 4));
		expect(casesOf(30, 4)).not.toEqual(casesOf(30, 5));
	});

	it('have two faults now and then, at places where their vehicle can have them', () => {
		const cases = casesOf(400, 2);
		const two = cases.filter(({ faults: found }) => found.length === 2).length;
		expect(two).toBeGreaterThan(4);
		expect(two).toBeLessThan(40);
	});
});
