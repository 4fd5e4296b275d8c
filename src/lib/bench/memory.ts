import type { BenchFault } from './faults/benchFault';
import type { MonitorMemory } from './modules/monitor';

/** All that a vehicle keeps while it stands: enough to take it out of the box tomorrow as it was left. */
export interface VehicleMemory {
	key: 'off' | 'on';
	keyCycles: number;
	odometerM: number;
	faults: BenchFault[];
	blown: string[];
	open: string[];
	modules: { address: number; monitors: MonitorMemory[]; kept: [string, string | null][] }[];
}
