import { describe, expect, it } from 'vitest';
import type { BusKind } from './harness';
import { vehicleTypes } from './index';
import { measurements } from './measure';
import { busKindAt, hasPointsFor, wheelReaderOf } from './measurePoints';
import { testsFor } from './reason/tests';
import type { VehicleType } from './vehicles';

const shipped = vehicleTypes.get('norvane-heath') as VehicleType;
/** The same vehicle, one of its segments of another kind. */
const withKind = (segment: string, kind: BusKind): VehicleType => ({
	...shipped,
	harness: {
		...shipped.harness,
		segments: shipped.harness.segments.map((one) => (one.name === segment ? { ...one, kind } : one))
	}
});
const busTests = (type: VehicleType, place: string) =>
	testsFor(type).flatMap((test) => {
		const one = measurements.find(({ id }) => test.kind.id === `meter:${id}`);
		return one?.about === 'bus' && test.place === place ? [one.bus] : [];
	});

describe('limits of a bus belong to its kind', () => {
	it('every measurement at a bus says of which kind its limits are', () => {
		for (const { id, about, bus } of measurements) expect(bus !== undefined, id).toBe(about === 'bus');
	});

	it('is asked at each module by the segment that it is on', () => {
		const own = shipped.modules.find(({ role }) => role === 'yaw')?.segment ?? '';
		const tolerant = withKind(own, 'fault-tolerant');
		expect(new Set(busTests(shipped, 'yaw'))).toEqual(new Set(['high-speed']));
		for (const { role, segment } of tolerant.modules) {
			const kind = segment === own ? 'fault-tolerant' : 'high-speed';
			expect(busKindAt(tolerant, role), role).toBe(kind);
			for (const asked of busTests(tolerant, role)) expect(asked, role).toBe(kind);
		}
	});

	it('offers at the bench what fits the bus of the module that reads the wheels, and nothing where there is none', () => {
		const reader = wheelReaderOf(shipped);
		const offered = (type: VehicleType) =>
			measurements.filter((one) => one.about === 'bus' && hasPointsFor(type, one)).map(({ id }) => id);
		expect(offered(shipped)).toContain('bus-ohms');
		expect(offered(withKind(reader?.segment ?? '', 'fault-tolerant'))).not.toContain('bus-ohms');
		expect(offered(withKind(reader?.segment ?? '', 'fault-tolerant'))).toHaveLength(2);
		expect(offered(vehicleTypes.get('norvane-wold') as VehicleType)).toEqual([]);
	});
});
