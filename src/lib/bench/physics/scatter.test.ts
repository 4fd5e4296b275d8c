import { describe, expect, it } from 'vitest';
import { linkTypes } from '../../../../library';
import { codesOf } from '../bench.fixture';
import { ROAD_TEST } from '../technician/liveTests';
import { mixedSeed } from '../technician/mixedSeed';
import { BenchVehicle, uniform } from '../vehicle';
import { drawScatter, NO_SCATTER, type Scatter } from './scatter';

const vehicle = (type: (typeof linkTypes)[number], scatter: Scatter) =>
	new BenchVehicle({ type, vin: '11111111111111111', odometerKm: 50_000, faults: [], seed: 5, scatter });

describe('tolerances of a vehicle’s parts', () => {
	it('lie within the share to either side, even in their logarithm', () => {
		const random = uniform(mixedSeed(8));
		const drawn = Array.from({ length: 400 }, () => drawScatter(0.3, random));
		for (const scatter of drawn)
			for (const factor of Object.values(scatter)) {
				expect(factor).toBeGreaterThanOrEqual(1 / 1.3);
				expect(factor).toBeLessThanOrEqual(1.3);
			}
		const mean = drawn.reduce((sum, { gap }) => sum + Math.log(gap), 0) / drawn.length;
		expect(Math.abs(mean)).toBeLessThan(0.03);
		expect(drawScatter(0, random)).toEqual(NO_SCATTER);
	});

	it.each(linkTypes.map((type) => [type.id, type] as const))(
		'a sound %s stays sound on the road, as far as they may go',
		(_, type) => {
			for (const seed of [1, 2, 3]) {
				const one = vehicle(type, drawScatter(0.3, uniform(mixedSeed(seed))));
				one.turnKey('on');
				one.drive(ROAD_TEST);
				while (one.moves) one.advance(1);
				expect(codesOf(one), String(seed)).toEqual({});
			}
		}
	);

	it('reach what a meter reads at a coil, and what a contact is', () => {
		const type = linkTypes.find(({ wheels }) => wheels.some(({ sensor }) => sensor === 'passive'));
		if (!type) throw new Error('no vehicle with a coil');
		const [usual, other] = [NO_SCATTER, { ...NO_SCATTER, coilOhms: 1.25, wiringOhms: 1.2 }].map((scatter) =>
			vehicle(type, scatter)
		);
		const wheel = usual?.world.wheels.findIndex(({ family }) => family === 'passive') ?? -1;
		expect((other?.electrics.coilOhmsOf(wheel) ?? 0) / (usual?.electrics.coilOhmsOf(wheel) ?? 1)).toBeCloseTo(
			1.25,
			6
		);
		const contact =
			[...(usual?.network.wiring.elements.keys() ?? [])].find((id) => id.startsWith('brake.')) ?? '';
		expect((other?.network.ohmsOf(contact) ?? 0) / (usual?.network.ohmsOf(contact) ?? 1)).toBeCloseTo(1.2, 6);
	});
});
