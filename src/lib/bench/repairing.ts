import { faults } from '../../../library/faults';
import { makersAlone } from '../../../library/exposed';
import { placesFor } from '../../../library/faultPlaces';
import { wheelReaderOf } from '../../../library/measurePoints';
import { judgedAs, MAKERS_PROCEDURE, repairs } from '../../../library/repairs';
import type { Activity } from './faults/activity';
import { benchFault, faultOf, type BenchFault } from './faults/benchFault';
import type { Module } from './modules/module';
import type { VehicleNetwork } from './physics/network';
import type { World } from './world';

/** What a repair is done to. */
export interface RepairedVehicle {
	world: World;
	network: VehicleNetwork;
	activity: Activity;
	module: (role: string) => Module | undefined;
	addFault: (fault: BenchFault) => void;
}

/**
 * Does a repair at a place, right or wrong; the physics say whether it cured anything. False for no such place.
 *
 * @param leaves faults that the work leaves behind: a bearing the wrong way round, a lead out of its clips
 */
export function repair(
	vehicle: RepairedVehicle,
	at: string,
	kind: string,
	leaves: readonly string[]
): boolean {
	const { world, network, activity } = vehicle;
	if (!hasPlace(world, at)) return false;
	const done = judgedAs(kind);
	activity.cure(done, at);
	if (done === MAKERS_PROCEDURE) doneByMaker(vehicle, at);
	if (done === 'renew-fuse') network.setFuse(at, true);
	workOnModule(vehicle, done, at);
	const always = repairs.get(kind)?.leaves;
	for (const id of always ? [...leaves, always] : leaves) leaveBehind(vehicle, id, at);
	return true;
}

/** People qualified for it put right whatever is wrong at the module and at wiring of its own. */
function doneByMaker({ world: { type }, activity, network }: RepairedVehicle, at: string): void {
	for (const fault of [...activity.all]) {
		if (makersAlone(type, fault.at)?.role !== at) continue;
		for (const cure of faultOf(fault).curedBy) activity.cure(cure, fault.at);
	}
	for (const { name } of type.harness.fuses)
		if (makersAlone(type, name)?.role === at) network.setFuse(name, true);
}

/** An input of a wheel is part of the module that reads it: what is done there is done to the whole module. */
function workOnModule({ world, module }: RepairedVehicle, done: string, at: string): void {
	const isWheel = world.wheels.some(({ position }) => position === at);
	const one = module(isWheel ? (wheelReaderOf(world.type)?.role ?? at) : at);
	if (done === 'code-module') one?.nonVolatile.code();
	if (done === 'calibrate') {
		for (const routine of one?.routines.values() ?? []) {
			if (routine.refuses?.(world) === null) routine.done(world);
		}
	}
	if (done === 'renew-module' && one) {
		// A new part knows no codes, and nothing of this vehicle; what is older than coding has nothing to know.
		one.clear(null);
		if (world.type.tells === 'link') one.nonVolatile.erase();
		one.restart();
	}
}

/** Where a fault cannot be at the place of the work, it is where it can. */
function leaveBehind({ world, activity, addFault }: RepairedVehicle, id: string, at: string): void {
	const fault = faults.get(id);
	const places = fault ? placesFor(fault, world.type) : [];
	const place = places.includes(at) ? at : places[0];
	if (place === undefined) return;
	if (!activity.all.some((one) => one.id === id && one.at === place)) addFault(benchFault(id, place));
}

function hasPlace({ type: { harness, wheels, modules } }: World, at: string): boolean {
	const named = [...harness.fuses, ...harness.grounds, ...harness.splices, ...harness.plugs].map(
		({ name }) => name
	);
	return [
		'vehicle',
		...named,
		...wheels.map(({ position }) => position),
		...modules.map(({ role }) => role)
	].includes(at);
}
