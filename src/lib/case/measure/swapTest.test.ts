import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import type { SwapOutcome, Swapped } from '../../../../library/reason/swaps';
import type { Link } from '../../../../library/links';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import { observationsOf } from '../reason/observations';
import { reasonAbout } from '../reason/reasoning';
import { Swap } from '../entries/swap/payload';
import { standing } from '../thread/thread';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { readOf, swapNow, swapShows, swapsWith } from './swapTest';

const MINIBUS = vehicleTypes.get('brindle-marlow-16');
if (!MINIBUS) throw new Error('no minibus in the library');
const model = reasonModel(MINIBUS);
const FAILS = 0x2f;
const OTHER_SIDE = '405013';

const begun = () => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
	maker.scan([[BRAKE, OPEN, FAILS]]);
	return maker;
};
const swap = (maker: ThreadMaker, what: Swapped, outcome: SwapOutcome | null) =>
	maker.add(
		'swap',
		Swap.parse({
			what,
			position: 'rear-left',
			with: what === 'module' ? null : what === 'sensors' ? 'rear-right' : 'front-left',
			state: outcome ? 'back' : 'swapped',
			outcome
		})
	);
const about = (maker: ThreadMaker) =>
	reasonAbout(standing(maker.thread), model, {
		book: shippedBook,
		codes: caseCodes(maker.thread),
		policy: PROVE_FIRST
	}).belief.present;
const chanceOf = (present: ArrayLike<number>, is: (one: (typeof model.faults)[number]) => boolean) =>
	model.faults.reduce((sum, one, i) => sum + (is(one) ? (present[i] ?? 0) : 0), 0);
const atLink =
	(link: Link) =>
	({ fault, place }: (typeof model.faults)[number]) =>
		place === 'rear-left' && fault.link === link;

describe('a swap', () => {
	it('is across the axle for sensors, along the side for wheels, with nothing for a module', () => {
		const four = MINIBUS.wheels.map(({ position }) => position);
		expect(swapsWith('sensors', 'rear-left', four)).toBe('rear-right');
		expect(swapsWith('wheels', 'rear-left', four)).toBe('front-left');
		expect(swapsWith('module', 'rear-left', four)).toBeNull();
		// On a motorcycle the two sensors are of two axles; on one axle there is no other wheel along the side.
		expect(swapsWith('sensors', 'front-wheel', ['front-wheel', 'rear-wheel'])).toBe('rear-wheel');
		expect(swapsWith('wheels', 'axle1-left', ['axle1-left', 'axle1-right'])).toBeNull();
	});

	it('that went with the sensor speaks for the sensor, that stayed against it', () => {
		const before = chanceOf(about(begun()), atLink('sensor'));
		const after = (outcome: SwapOutcome) => {
			const maker = begun();
			swap(maker, 'sensors', null);
			swap(maker, 'sensors', outcome);
			return about(maker);
		};
		expect(chanceOf(after('moved'), atLink('sensor'))).toBeGreaterThan(0.8);
		expect(chanceOf(after('stayed'), atLink('sensor'))).toBeLessThan(before / 5);
		expect(chanceOf(after('stayed'), atLink('harness'))).toBeGreaterThan(
			chanceOf(about(begun()), atLink('harness'))
		);
		expect(chanceOf(after('gone'), atLink('sensor-connector'))).toBeGreaterThan(
			chanceOf(about(begun()), atLink('sensor-connector'))
		);
	});

	it('of the module: gone is the module, stayed is not', () => {
		const inModule = ({ fault, place }: (typeof model.faults)[number]) =>
			['brake', 'rear-left'].includes(place) && fault.curedBy.includes('renew-module');
		const after = (outcome: SwapOutcome) => {
			const maker = begun();
			swap(maker, 'module', outcome);
			return chanceOf(about(maker), inModule);
		};
		const before = chanceOf(about(begun()), inModule);
		expect(after('gone')).toBeGreaterThan(3 * before);
		expect(after('stayed')).toBeLessThan(before / 3);
	});

	it('while it lasts, what is read at its wheels is of the other’s part: no evidence, and a new code is our own', () => {
		const maker = begun();
		swap(maker, 'sensors', null);
		maker.scan([
			[BRAKE, OPEN, 0],
			[BRAKE, OTHER_SIDE, FAILS]
		]);
		const epochOf = (sign: string) =>
			observationsOf(standing(maker.thread), MINIBUS, shippedBook, caseCodes(maker.thread)).filter(
				(one) => one.sign === sign
			);
		expect(epochOf('wheel-code@rear-right')).toHaveLength(1);
		expect(epochOf('wheel-code@rear-right')[0]?.outcome).toBe('none');
		expect(caseCodes(maker.thread).find(({ dtc }) => dtc === OTHER_SIDE)?.madeByUs).not.toBeNull();
	});

	it('is read from what was read of both wheels since', () => {
		const maker = begun();
		const codesOf = () => caseCodes(maker.thread);
		const at = (position: 'rear-left' | 'rear-right', from = 0) =>
			readOf(standing(maker.thread).slice(from), position, codesOf());
		expect(at('rear-left')).toMatchObject([
			{ words: expect.stringMatching(/^C0045-13 .*fails now$/), bad: true }
		]);
		expect(at('rear-right')).toMatchObject([{ words: 'no code', bad: false }]);
		swap(maker, 'sensors', null);
		const from = standing(maker.thread).length;
		expect(swapNow(standing(maker.thread), 'rear-left')?.payload.with).toBe('rear-right');
		expect(swapShows(at('rear-left', from), at('rear-right', from))).toBeNull();
		maker.scan([
			[BRAKE, OPEN, 0],
			[BRAKE, OTHER_SIDE, FAILS]
		]);
		expect(swapShows(at('rear-left', from), at('rear-right', from))).toBe('moved');
		maker.scan([[BRAKE, OPEN, FAILS]]);
		expect(swapShows(at('rear-left', from), at('rear-right', from))).toBe('stayed');
		maker.scan([]);
		expect(swapShows(at('rear-left', from), at('rear-right', from))).toBe('gone');
		swap(maker, 'sensors', 'moved');
		expect(swapNow(standing(maker.thread), 'rear-left')).toBeNull();
	});
});
