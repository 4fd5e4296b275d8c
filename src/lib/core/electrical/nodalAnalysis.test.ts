import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NodalAnalysis, type Resistor } from './nodalAnalysis';

const fixed = (volts: Record<string, number>) => new Map(Object.entries(volts));

describe('nodal analysis against closed forms', () => {
	it('divides a voltage by R2/(R1+R2)', () => {
		const it = new NodalAnalysis(
			[
				{ a: 'supply', b: 'tap', ohms: 2200 },
				{ a: 'tap', b: 'ground', ohms: 1000 }
			],
			fixed({ supply: 12.8, ground: 0 })
		);
		expect(it.volts('tap')).toBeCloseTo((12.8 * 1000) / 3200, 6);
		expect(it.resistanceOhms('tap', 'ground')).toBeCloseTo((2200 * 1000) / 3200, 5);
	});

	it('balances a bridge whose arms have the same ratio, and tilts one whose arms have not', () => {
		const bridge = (last: number) =>
			new NodalAnalysis(
				[
					{ a: 'plus', b: 'left', ohms: 100 },
					{ a: 'left', b: 'minus', ohms: 300 },
					{ a: 'plus', b: 'right', ohms: 50 },
					{ a: 'right', b: 'minus', ohms: last },
					{ a: 'left', b: 'right', ohms: 75 }
				],
				fixed({ plus: 10, minus: 0 })
			);
		expect(bridge(150).volts('left') - bridge(150).volts('right')).toBeCloseTo(0, 6);
		expect(bridge(400).volts('right')).toBeGreaterThan(bridge(400).volts('left'));
	});

	it('sees 60 ohms between the wires of a bus with two terminators, 120 with one', () => {
		const wires: Resistor[] = [
			{ a: 'p1', b: 'p2', ohms: 0.05 },
			{ a: 'm1', b: 'm2', ohms: 0.05 },
			{ a: 'p1', b: 'm1', ohms: 120 }
		];
		const both = [...wires, { a: 'p2', b: 'm2', ohms: 120 }];
		expect(new NodalAnalysis(both, new Map()).resistanceOhms('p1', 'm1')).toBeCloseTo(60, 0);
		expect(new NodalAnalysis(wires, new Map()).resistanceOhms('p2', 'm2')).toBeCloseTo(120.1, 1);
	});

	it('takes a drawn current through the source resistance, and leaves other islands alone', () => {
		const it = new NodalAnalysis(
			[
				{ a: 'battery', b: 'feed', ohms: 5 },
				{ a: 'battery', b: 'other', ohms: 5 }
			],
			fixed({ battery: 12, ground: 0 })
		);
		expect(it.loopTransferOhms('feed', 'ground', 'feed', 'ground') * 0.1).toBeCloseTo(-0.5, 6);
		expect(it.loopTransferOhms('feed', 'ground', 'other', 'ground')).toBe(0);
	});

	it('keeps its head between a milliohm and ten megohms', () => {
		const it = new NodalAnalysis(
			[
				{ a: 'battery', b: 'x', ohms: 0.001 },
				{ a: 'x', b: 'y', ohms: 1e7 },
				{ a: 'y', b: 'ground', ohms: 115 }
			],
			fixed({ battery: 12.5, ground: 0 })
		);
		expect(it.volts('x')).toBeCloseTo(12.5, 6);
		expect(it.volts('y')).toBeCloseTo((12.5 * 115) / 1e7, 8);
	});

	it('gives a node that hangs on nothing no voltage, and refuses a resistance of nothing', () => {
		expect(new NodalAnalysis([], new Map()).volts('nowhere')).toBe(0);
		expect(() => new NodalAnalysis([{ a: 'a', b: 'b', ohms: 0 }], new Map())).toThrow('a–b');
	});
});

describe('on any network', () => {
	const nodes = ['a', 'b', 'c', 'd', 'e', 'f'];
	const resistor = fc.record({
		a: fc.constantFrom(...nodes, 'plus', 'ground'),
		b: fc.constantFrom(...nodes, 'plus', 'ground'),
		ohms: fc.double({ min: 0.01, max: 1e6, noNaN: true })
	});
	const network = fc.array(resistor, { minLength: 1, maxLength: 20 });
	const sources = fixed({ plus: 12, ground: 0 });

	it('loses no current: what flows into a free node flows out', () => {
		fc.assert(
			fc.property(network, (resistors) => {
				const it = new NodalAnalysis(resistors, sources);
				for (const node of nodes) {
					const flows = resistors.flatMap((r) =>
						r.a === r.b
							? []
							: r.a === node
								? [(it.volts(r.b) - it.volts(node)) / r.ohms]
								: r.b === node
									? [(it.volts(r.a) - it.volts(node)) / r.ohms]
									: []
					);
					const largest = Math.max(1e-6, ...flows.map(Math.abs));
					expect(flows.reduce((sum, amps) => sum + amps, 0) / largest).toBeCloseTo(0, 3);
				}
			})
		);
	});

	it('is reciprocal: a pushes on b as b pushes on a', () => {
		fc.assert(
			fc.property(network, (resistors) => {
				const it = new NodalAnalysis(resistors, sources);
				const [there, back] = [it.transferOhms('a', 'b'), it.transferOhms('b', 'a')];
				expect(there).toBeCloseTo(back, Math.max(0, 6 - Math.ceil(Math.log10(Math.abs(there) + 1))));
			})
		);
	});
});
