import { hexToBytes } from '@noble/hashes/utils.js';
import { identifiers, vehicleTypes, type VehicleType } from '../../../library';
import { decodeIdentifier } from '../core/uds/identifierValue';
import { parseCodeList } from '../core/uds/readCodes';
import type { BenchFault } from './faults/benchFault';
import type { DriveLeg } from './motion';
import { BenchVehicle } from './vehicle';

export const typeOf = (id: string): VehicleType => {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(`no ${id} in the library`);
	return type;
};

export const MINIBUS = 'brindle-marlow-16';

/** A vehicle with its key on and its lamps through their self-check. */
export function vehicleOf(id: string, ...faults: BenchFault[]): BenchVehicle {
	const made = new BenchVehicle({ type: typeOf(id), vin: '11111111111111111', odometerKm: 1000, faults });
	made.turnKey('on');
	made.advance(4);
	return made;
}

/** The last answer to a request, in hex. */
export function ask(from: BenchVehicle, address: number, request: string): string {
	const answers = from.request(address, hexToBytes(request.replace(/ /g, '')));
	return (answers?.at(-1)?.bytes ?? []).map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join(' ');
}

export const addressOf = (of: BenchVehicle, role: string): number => {
	const module = of.world.type.modules.find((one) => one.role === role);
	if (!module) throw new Error(`no ${role}`);
	return parseInt(module.address, 16);
};

/** Codes with a status bit of the mask, by module role, read over the services. */
export function codesOf(from: BenchVehicle, mask = '08'): Record<string, string[]> {
	const found: Record<string, string[]> = {};
	for (const { role, address } of from.world.type.modules) {
		const list = parseCodeList(
			hexToBytes(ask(from, parseInt(address, 16), `19 02 ${mask}`).replace(/ /g, ''))
		);
		if (list.ok && list.value.codes.length > 0) found[role] = list.value.codes.map(({ dtc }) => dtc);
	}
	return found;
}

export function statusOf(from: BenchVehicle, address: number, dtc: string): number {
	const list = parseCodeList(hexToBytes(ask(from, address, '19 0A').replace(/ /g, '')));
	const found = list.ok ? list.value.codes.find((code) => code.dtc === dtc) : undefined;
	if (!found) throw new Error(`${dtc} is not supported`);
	return found.status;
}

/** An identifier's value over service 22; null where it is not available. */
export function valueOf(from: BenchVehicle, role: string, id: string): number | null {
	const answer = ask(from, addressOf(from, role), `22 ${id}`).replace(/ /g, '');
	const rule = identifiers.get(id);
	if (!rule || !answer.startsWith('62')) throw new Error(`${role} does not tell ${id}: ${answer}`);
	const value = decodeIdentifier(rule, answer.slice(6));
	return value.kind === 'number' ? value.value : null;
}

export function driveLegs(it: BenchVehicle, legs: DriveLeg[]): void {
	if (!it.drive(legs)) throw new Error('the key is off');
	it.advance(legs.reduce((sum, leg) => sum + leg.overS, 1));
}
