import type { VehicleType } from '../../../../library';
import { ThreadMaker } from './threads.fixture';

/** A case on which one code was read in one module of a described vehicle, all else answering and quiet. */
export function oneCodeRead(type: VehicleType, role: string, dtc: string, status: number): ThreadMaker {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: type.id, name: type.model, plate: 'TP 1' });
	maker.add('network-scan', {
		outcome: 'complete',
		stoppedBecause: null,
		vin: null,
		keyCycles: null,
		modulesExpected: type.modules.length,
		modules: type.modules.map((module) => ({
			address: module.address,
			name: module.name,
			answered: true,
			trouble: null,
			software: null,
			availabilityMask: 0xff,
			codes:
				module.role === role
					? [{ dtc, status, snapshots: [], occurrences: null, ageingCycles: null, troubles: [] }]
					: [],
			supported: [],
			exchanges: []
		}))
	});
	return maker;
}
