import { identifiers, type ModuleRole } from '../../../../library';
import { decodeIdentifier, encodeIdentifier } from '../../core/uds/identifierValue';
import type { World } from '../world';

/** A value in its unit → the raw hex of one of the library's identifiers. Throws for an identifier nobody described. */
export function rawValue(id: string, value: number | string | null): string {
	return encodeIdentifier(ruleOf(id), value);
}

/** The other way: what a kept raw value means; null for erased memory. */
export function numberOf(id: string, raw: string | null): number | null {
	if (raw === null) return null;
	const value = decodeIdentifier(ruleOf(id), raw);
	return value.kind === 'number' ? value.value : null;
}

function ruleOf(id: string) {
	const rule = identifiers.get(id);
	if (!rule) throw new RangeError(`identifier ${id} is not in the library`);
	return rule;
}

/** What of a module the common identifiers are about. */
interface Identified {
	role: ModuleRole;
	type: { name: string };
	volts(world: World): number;
}

/** What every module on this vehicle can tell; null for anything else. */
export function commonValue(id: string, module: Identified, world: World, software: string): string | null {
	switch (id) {
		case 'F190':
			return rawValue(id, world.vin);
		case 'F195':
			return rawValue(id, software);
		case 'F197':
			return rawValue(id, module.type.name);
		case 'F442':
			return rawValue(id, Math.max(0, module.volts(world)));
		case 'F446':
			return rawValue(id, world.motion.around.outsideC);
		case 'F4A6':
			return rawValue(id, world.motion.odometerM / 1000);
		case 'F40D': {
			const brake = world.messages.read(module.role, 'brake', world.timeS);
			const trailer = world.messages.read(module.role, 'trailer-brake', world.timeS);
			return rawValue(id, (brake ?? trailer)?.said.vehicleKmh ?? 0);
		}
		default:
			return null;
	}
}
