import type { BenchVehicle } from '../vehicle';
import type { Tester } from './tester';

/** Readings that should be zero at rest and straight ahead, and what is still no fault. */
const SENSES: Record<string, readonly { id: string; slack: number; movesBy: number | null }[]> = {
	'steering-angle': [{ id: 'D110', slack: 8, movesBy: 40 }],
	yaw: [
		{ id: 'D111', slack: 2, movesBy: 1 },
		{ id: 'D112', slack: 0.08, movesBy: null }
	],
	brake: [{ id: 'D113', slack: 5, movesBy: null }],
	'trailer-brake': [{ id: 'D113', slack: 5, movesBy: null }]
};
/** Zero points that a module keeps once they are learned. */
const ZEROS: Record<string, readonly string[]> = {
	'steering-angle': ['D160'],
	yaw: ['D161', 'D162'],
	brake: ['D163'],
	'trailer-brake': ['D163'],
	'power-steering': ['D165']
};

/** Reads a module's own sensors standing straight, then in a slow turn. */
export function senseOutcome(vehicle: BenchVehicle, tester: Tester, role: string): string {
	const list = SENSES[role] ?? [];
	const atRest = list.map(({ id }) => tester.value(role, id));
	if (atRest.some((value) => value === null)) return 'nothing';
	vehicle.drive([
		{ toKmh: 8, overS: 3, steeringDeg: 150 },
		{ toKmh: 8, overS: 4, steeringDeg: 150 }
	]);
	vehicle.advance(6);
	const inTurn = list.map(({ id }) => tester.value(role, id));
	vehicle.drive([{ toKmh: 0, overS: 2 }]);
	vehicle.advance(3);
	const stuck = list.some(
		({ movesBy }, i) => movesBy !== null && Math.abs((inTurn[i] ?? 0) - (atRest[i] ?? 0)) < movesBy
	);
	if (stuck) return 'stuck';
	return list.some(({ slack }, i) => Math.abs(atRest[i] ?? 0) > slack) ? 'off' : 'right';
}

/** Whether the zero points that a module should have learned are stored. */
export const learnedOutcome = (tester: Tester, role: string): string =>
	(ZEROS[role] ?? []).every((id) => tester.value(role, id) !== null) ? 'yes' : 'no';
