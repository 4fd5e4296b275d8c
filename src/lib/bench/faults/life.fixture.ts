import { expect } from 'vitest';
import type { VehicleType } from '../../../../library';
import type { Fault } from '../../../../library/faults';
import { repairs } from '../../../../library/repairs';
import { MINIBUS, typeOf, vehicleOf } from '../bench.fixture';
import type { BenchVehicle } from '../vehicle';
import { placesFor } from '../../../../library/faultPlaces';
import { benchFault } from './benchFault';
import { differences, observe, type Observations } from './observe.fixture';

const minibus = typeOf(MINIBUS);
const skiff = typeOf('velmora-skiff');
const baselines = new Map<string, Observations>();

/** What a sound vehicle of a type shows; looked at once. */
export function baseline(id: string): Observations {
	let known = baselines.get(id);
	if (!known) {
		known = observe(vehicleOf(id));
		baselines.set(id, known);
	}
	return known;
}

/** A vehicle on which the fault can be, and a place where it matters. */
function placed(fault: Fault): { type: VehicleType; at: string } {
	const type = fault.sensors?.includes('two-wire') === false ? skiff : minibus;
	const places = placesFor(fault, type);
	const wanted = ['rear-left', 'F14', 'G2', 'S7', 'power-steering'];
	const at =
		wanted.find((place) => places.includes(place)) ??
		places.find((place) => place !== 'gateway') ??
		places[0];
	if (at === undefined) throw new Error(`${fault.id} has no place`);
	return { type, at };
}

/** As a careful person ends a job: coded and calibrated, codes cleared, key cycled. */
function finish(vehicle: BenchVehicle, at: string): void {
	for (const repair of ['code-module', 'calibrate']) vehicle.mend(at, repair);
	for (const module of vehicle.modules.values()) module.clear(null);
	Object.assign(vehicle.world.motion.around, { wet: 0, roughness: 0.2, outsideC: 12 });
	vehicle.world.motion.hubC = 12;
	vehicle.turnKey('off');
	vehicle.advance(2);
	vehicle.turnKey('on');
	vehicle.advance(4);
}

/** The whole life of one fault: it shows, a wrong repair does not touch it, each right one takes it away. */
export function expectShownAndCured(fault: Fault): void {
	const { type, at } = placed(fault);
	const comesByKm = fault.when?.everyKm === undefined ? null : 0.1;
	const present = benchFault(fault.id, at, 0.75, comesByKm);
	const broken = vehicleOf(type.id, present);
	const shown = differences(baseline(type.id), observe(broken));
	expect(shown, 'no symptom').not.toEqual([]);

	const wrong = [...repairs.keys()].find(
		(id) => !fault.curedBy.includes(id) && !['calibrate', 'code-module', 'renew-module'].includes(id)
	);
	broken.mend(at, wrong ?? '');
	expect(broken.faults, `cured by ${wrong}`).toHaveLength(1);

	const [first = '', ...others] = fault.curedBy;
	broken.mend(at, first);
	finish(broken, at);
	expect(differences(baseline(type.id), observe(broken)), `after ${first}`).toEqual([]);
	for (const repair of others) {
		const again = vehicleOf(type.id, present);
		again.mend(at, repair);
		if (repair !== 'calibrate') expect(again.faults, `after ${repair}`).toEqual([]);
	}
}
