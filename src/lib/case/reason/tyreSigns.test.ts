import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { reasonModel } from '../../../../library/reason/model';
import { isOfAxle } from '../../../../library/faults';
import { shippedBook } from '../../../../library/codes';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import type { PayloadOf } from '../entries/entry';
import { standing } from '../thread/thread';
import { ThreadMaker } from '../thread/threads.fixture';
import { reasonAbout } from './reasoning';
import { mendingSteps } from './reasonView';
import { tyreSigns } from './tyreSigns';

const type = vehicleTypes.get('brindle-marlow-16');
if (!type) throw new Error('no brindle-marlow-16');
/** Nobody has told what its wheels roll. */
const untold = { ...type, assumed: type.wheels.map(({ position }) => `wheels.${position}.circumferenceM`) };
const model = reasonModel(untold);
const SMALL = '205/65R16C';
const BIG = '205/75R16C';

const fitted = (front: string, rear: string, placard?: string): PayloadOf<'tyres-fitted'> => ({
	tyres: type.wheels.map(({ position }) => ({
		position,
		size: position.startsWith('front') ? front : rear,
		brand: '',
		treadMm: 6,
		pressureKpa: 300
	})),
	...(placard ? { placard: [1, 2].map((axle) => ({ axle, size: placard })) } : {})
});
const about = (...add: ((maker: ThreadMaker) => void)[]) => {
	const maker = new ThreadMaker().listen();
	for (const one of add) one(maker);
	return reasonAbout(standing(maker.thread), model, {
		book: shippedBook,
		codes: caseCodes(maker.thread),
		policy: PROVE_FIRST
	});
};
const ofAxle = (reasoning: ReturnType<typeof about>, axle: string) =>
	model.faults.reduce(
		(sum, { fault, place }, i) =>
			sum +
			(fault.link === 'tyre' && isOfAxle(fault) && place.startsWith(axle)
				? (reasoning.belief.present[i] ?? 0)
				: 0),
		0
	);

describe('two axles of different tyres', () => {
	it('do not say which is wrong: both are candidates, too big as well as too small', () => {
		expect(tyreSigns(fitted(BIG, SMALL), untold)).toEqual({ 'tyre-axles@vehicle': 'differ' });
		const reasoning = about((maker) => maker.add('tyres-fitted', fitted(BIG, SMALL)));
		const [front, rear] = [ofAxle(reasoning, 'front'), ofAxle(reasoning, 'rear')];
		expect(front + rear).toBeGreaterThan(0.5);
		expect(front).toBeGreaterThan(0.2);
		expect(rear).toBeGreaterThan(0.2);
	});

	it.each([
		[BIG, 'rear'],
		[SMALL, 'front']
	])('a placard of %s says that it is the %s, and the repair names the axle', (placard, axle) => {
		const reasoning = about((maker) => maker.add('tyres-fitted', fitted(BIG, SMALL, placard)));
		expect(ofAxle(reasoning, axle)).toBeGreaterThan(0.97);
		expect(mendingSteps(reasoning)[0]?.name.toLowerCase()).toBe(`fit the right tyres, ${axle} axle`);
	});

	it.each([
		['rear', { front: 50.1, rear: 53 }],
		['front', { front: 47.4, rear: 50.1 }]
	] as const)('a true speed says that it is the %s', (axle, told) => {
		const reasoning = about(
			(maker) => maker.add('tyres-fitted', fitted(BIG, SMALL)),
			(maker) =>
				maker.add('speed-checked', {
					by: 'satellites',
					trueKmh: 50,
					wheels: type.wheels.map(({ position }) => ({
						position,
						kmh: position.startsWith('front') ? told.front : told.rear
					}))
				})
		);
		expect(ofAxle(reasoning, axle)).toBeGreaterThan(0.9);
	});
});

describe('what is told of a size', () => {
	it('one wheel that differs from three is another size, bigger or smaller', () => {
		for (const [odd, rest] of [
			[SMALL, BIG],
			[BIG, SMALL]
		] as const) {
			const payload = fitted(rest, rest);
			const [first] = payload.tyres;
			if (first) first.size = odd;
			expect(tyreSigns(payload, untold)).toMatchObject({
				'tyre@front-left': 'other-size',
				'tyre@front-right': 'right',
				'tyre@rear-left': 'right'
			});
		}
	});

	it('by the placard all four may be wrong', () => {
		expect(Object.values(tyreSigns(fitted(SMALL, SMALL, BIG), untold))).toEqual([
			'same',
			'other-size',
			'other-size',
			'other-size',
			'other-size'
		]);
	});

	it('is learned from what its wheels are known to roll, unless the whole set is another variant', () => {
		const rolls = (m: number) => ({
			...type,
			assumed: [],
			wheels: type.wheels.map((wheel) => ({ ...wheel, circumferenceM: m }))
		});
		// 205/75R16C: 0.965 · π · (16 · 25.4 + 2 · 205 · 0.75) mm = 2.165 m
		expect(tyreSigns(fitted(BIG, SMALL), rolls(2.165))).toMatchObject({
			'tyre@front-left': 'right',
			'tyre@rear-left': 'other-size'
		});
		expect(tyreSigns(fitted(SMALL, SMALL), rolls(2.165))).toMatchObject({ 'tyre@front-left': 'right' });
	});
});
