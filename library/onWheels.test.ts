import { describe, expect, it } from 'vitest';
import { vehicleTypes } from './index';
import { shippedBook } from './codes';
import { onWheels, wheelMeant } from './onWheels';
import { CAR_POSITIONS, SINGLE_TRACK_POSITIONS, type Position } from './positions';

const THREE_AXLES: Position[] = [
	'axle3-left',
	'axle1-left',
	'axle1-right',
	'axle2-left',
	'axle2-right',
	'axle3-right'
];

describe('the wheel that a source means', () => {
	it.each([
		[CAR_POSITIONS, 'rear-left', 'rear-left'],
		[CAR_POSITIONS, 'axle2-left', 'rear-left'],
		[THREE_AXLES, 'front-right', 'axle1-right'],
		[THREE_AXLES, 'rear-left', 'axle2-left'],
		[THREE_AXLES, 'axle3-left', 'axle3-left'],
		// Wheels that the vehicle has not.
		[CAR_POSITIONS, 'axle3-left', null],
		[SINGLE_TRACK_POSITIONS, 'front-left', null],
		[CAR_POSITIONS, 'front-wheel', null]
	] as const)('of %j, %s is %s', (wheels, said, is) => {
		expect(wheelMeant(wheels, said)).toBe(is);
	});

	it('a number of a heavy vehicle is the axle of a trailer', () => {
		const trailer = vehicleTypes.get('hexley-drover');
		if (!trailer) throw new Error('no hexley-drover');
		const cornersOf = (code: string) =>
			onWheels(shippedBook, trailer)
				.definitions(code)
				.map(({ corner }) => corner);
		expect(cornersOf('SPN 789')).toEqual(['axle1-left']);
		expect(cornersOf('SPN 792')).toEqual(['axle2-right']);
		expect(onWheels(shippedBook, trailer)).toBe(onWheels(shippedBook, trailer));
	});
});
