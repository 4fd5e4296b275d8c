import { wheelReaderOf } from '../measurePoints';
import { sharedPlugsOf } from '../sharedPlugs';
import type { VehicleType } from '../vehicles';
import { testsFor, type PlacedTest } from './tests';

/** Something that the circuits of several wheels share, and the look or measurement that tells of it. */
export interface SharedByWheels {
	kind: 'plug' | 'module-plug' | 'supply' | 'ground';
	/** Plug, or role of the module that reads them. */
	place: string;
	/** Of a plug, where it is. */
	where: string | null;
	test: PlacedTest;
	/** With getting there, from a vehicle on which nothing is laid open yet. */
	minutes: number;
}

/** What these wheels share, the cheapest look first; nothing for a wheel alone. */
export function sharedByWheels(type: VehicleType, wheels: readonly string[]): SharedByWheels[] {
	const reader = wheelReaderOf(type)?.role;
	if (wheels.length < 2 || reader === undefined) return [];
	const tests = new Map(testsFor(type).map((test) => [test.id, test]));
	const told = (kind: SharedByWheels['kind'], id: string, where: string | null = null): SharedByWheels[] => {
		const test = tests.get(id);
		if (!test) return [];
		const minutes = test.access.reduce((sum, one) => sum + one.minutes, test.minutes);
		return [{ kind, place: test.place, where, test, minutes }];
	};
	const plugs = sharedPlugsOf(type)
		.filter((plug) => wheels.every((wheel) => plug.wheels.some((one) => one === wheel)))
		.flatMap(({ name, where }) => told('plug', `shared-plug@${name}`, where));
	return [
		...plugs,
		...told('module-plug', `module-plug@${reader}`),
		...told('supply', `meter:module-supply@${reader}`),
		...told('ground', `meter:ground-drop@${reader}`)
	].sort((a, b) => a.minutes - b.minutes);
}
