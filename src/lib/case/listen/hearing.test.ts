import { describe, expect, it } from 'vitest';
import { cameBack, testRan } from './hearing';

const NONE = { standing: [], following: [] };
const NAMES = { '1010': 'Brake control', '1030': 'Cluster' };
const heard = (address: string, dtc: string, status: number, kmh: number | null = 43) => ({
	atS: 1,
	address,
	dtc,
	status,
	kmh
});

describe('what is heard of codes while it is driven', () => {
	it('each code once, with the speed at which it was heard first', () => {
		const all = [
			heard('1010', '404513', 0x2f),
			heard('1010', '404513', 0x2e, 50),
			heard('1010', '403513', 0x08, 0)
		];
		expect(cameBack(all, NONE, NAMES).map(({ words }) => words)).toEqual([
			'C0045-13 in Brake control, at 43 km/h',
			'C0035-13 in Brake control, standing'
		]);
	});

	it('what follows from another comes last, and in many modules is one line', () => {
		const all = [
			heard('1030', 'C41581', 0x2f),
			heard('1040', 'C41581', 0x2f),
			heard('1010', '404513', 0x2f, null)
		];
		const following = ['1030/C41581', '1040/C41581'];
		expect(cameBack(all, { standing: [], following }, NAMES).map(({ words }) => words)).toEqual([
			'C0045-13 in Brake control',
			'U0415-81 in 2 modules, at 43 km/h'
		]);
	});

	it('what is there anyway is no news, and a code that passed is none', () => {
		const all = [heard('1010', '404513', 0x2f), heard('1010', '403513', 0x50), heard('1099', '405013', 0x2f)];
		const known = { standing: ['1010/404513'], following: [] };
		expect(cameBack(all, known, NAMES).map(({ words }) => words)).toEqual(['C0050-13 in 1099, at 43 km/h']);
	});

	it('a test has run where its module says so and found nothing', () => {
		const all = [heard('1010', '404513', 0), heard('1010', '403513', 0x50), heard('1010', '405013', 0x2f)];
		expect(testRan(all)).toEqual(['1010/404513']);
	});
});
