import type { BenchVehicle } from '../vehicle';
import type { Tester } from './tester';

/** From key on until every module answers. */
export const WAKES_S = 4;

/** Codes saved and cleared, key off and on: modules begin anew. */
export function clearFrozenValues(vehicle: BenchVehicle, tester: Tester): void {
	tester.clearAll();
	vehicle.turnKey('off');
	vehicle.advance(1);
	vehicle.turnKey('on');
	vehicle.advance(WAKES_S);
}
