import { describe, expect, it } from 'vitest';
import { describeEntry, whatItShowed } from './describe';
import { viewScan } from '../codes/scanView';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from './threads.fixture';

describe('an entry on the thread', () => {
	it('says what happened and what that showed', () => {
		const maker = new ThreadMaker().listen();
		const first = maker.scan([[BRAKE, OPEN, 0xaf]], {}, [CLUSTER]);
		expect(describeEntry(first)).toEqual({
			title: 'Read, all 2 modules',
			detail: 'C0045-13',
			shows: 'silent: Instrument cluster'
		});
		maker.repair().clear().cycleKey().lamps();
		const proof = maker.scan([]);
		expect(whatItShowed(maker.thread.slice(0, -1), proof)).toEqual([
			{ words: 'C0045-13 proven clear', good: true }
		]);
	});

	it('names what was not cleared', () => {
		const maker = new ThreadMaker();
		const entry = maker.add('codes-cleared', {
			keyCycles: null,
			modules: [
				{
					address: BRAKE,
					name: 'Brake control',
					outcome: 'refused',
					detail: 'It refused: vehicle moves too fast.'
				},
				{ address: CLUSTER, name: 'Instrument cluster', outcome: 'cleared', detail: null }
			]
		});
		expect(describeEntry(entry)).toMatchObject({ title: 'Cleared in 1 module', shows: 'not: Brake control' });
	});
});

describe('a scan as it is read', () => {
	it('puts silence first, then codes, and values in their units', () => {
		const maker = new ThreadMaker();
		const scan = maker.scan([[BRAKE, OPEN, 0xaf]], {}, [CLUSTER]);
		if (scan.kind !== 'network-scan') throw new Error('not a scan');
		scan.payload.modules[0]!.codes[0]!.snapshots = [
			{
				record: 1,
				values: [
					{ id: 'F442', raw: '30D4' },
					{ id: 'D103', raw: 'FFFF' },
					{ id: 'ABCD', raw: '01' },
					{ id: 'F40D', raw: '0102' }
				]
			}
		];
		const [silent, brake] = viewScan(scan);
		expect(silent?.name).toBe('Instrument cluster');
		expect(brake?.codes[0]).toMatchObject({
			title: 'Rear-left wheel speed sensor circuit',
			phrase: 'failing now, confirmed',
			statusByte: 'AF'
		});
		expect(brake?.codes[0]?.snapshots[0]?.values.map((v) => v.text)).toEqual([
			'12.50 V',
			'not available',
			'01',
			'0102 (1 bytes expected)'
		]);
	});

	it('shows a code nobody has described with its bytes, and says so', () => {
		const maker = new ThreadMaker();
		const scan = maker.scan([[BRAKE, '5ABCEE', 0x2f]]);
		const [module] = scan.kind === 'network-scan' ? viewScan(scan) : [];
		expect(module?.codes[0]).toMatchObject({
			text: 'C1ABC-EE',
			title: 'Not in the library yet',
			origin: 'the maker’s own code, chassis'
		});
	});
});
