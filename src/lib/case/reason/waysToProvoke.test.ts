import { describe, expect, it } from 'vitest';
import { reasonModel } from '../../../../library/reason/model';
import { vehicleTypes } from '../../../../library';
import { PROVE_FIRST } from '../../core/path/policy';
import { shippedBook } from '../../../../library/codes';
import { caseCodes } from '../codes/caseCodes';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { standing } from '../thread/thread';
import { reasonAbout } from './reasoning';
import { waysToProvoke } from './waysToProvoke';

const type = vehicleTypes.get('brindle-marlow-16');
if (!type) throw new Error('no brindle-marlow-16');
const model = reasonModel(type);
const STORED = 0x2c;

const waysOf = (maker: ThreadMaker, at: 'rear-left' | 'front-left' = 'rear-left') =>
	waysToProvoke(
		reasonAbout(standing(maker.thread), model, {
			book: shippedBook,
			codes: caseCodes(maker.thread),
			policy: PROVE_FIRST
		}),
		at
	);
const stored = () => {
	const maker = new ThreadMaker().listen();
	maker.scan([[BRAKE, OPEN, STORED]]);
	return maker;
};
const rates = (ways: { bits: number; minutes: number }[]) => ways.map(({ bits, minutes }) => bits / minutes);

describe('ways to make a stored code come', () => {
	const ways = waysOf(stored());

	it('are clear, spin, in gear, moving, water, warmth, road; steering where it steers', () => {
		const does = new Set(ways.map((one) => one.does));
		expect(does).toEqual(new Set(['clear', 'spin', 'in-gear', 'move', 'wet', 'warm', 'road']));
		expect(waysOf(stored(), 'front-left').map((one) => one.does)).toContain('lock');
	});

	it('come in the order of information per minute', () => {
		expect(rates(ways)).toEqual([...rates(ways)].sort((a, b) => b - a));
		expect(ways[0]?.bits).toBeGreaterThan(0);
	});

	it('one that showed nothing tells less when it is done again', () => {
		const bitsOf = (list: typeof ways, test: string) => list.find((one) => one.test === test)?.bits ?? 0;
		const maker = stored();
		const rear = { position: 'rear-left', seconds: 20, changes: 0 } as const;
		maker.provoked(
			{ ...rear, does: 'move', is: 'lead', label: 'lead' },
			{ ...rear, does: 'wet', label: 'water' }
		);
		const after = waysOf(maker);
		expect(bitsOf(after, 'wiggle-lead')).toBeLessThan(bitsOf(ways, 'wiggle-lead'));
		expect(bitsOf(ways, 'wiggle-lead')).toBeGreaterThan(0.01);
	});
});
