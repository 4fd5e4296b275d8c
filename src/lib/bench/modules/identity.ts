import { identifiers } from '../../../../library';
import { encodeIdentifier } from '../../core/uds/identifierValue';
import type { World } from './module';

/** A value in its unit → the raw hex of one of the library's identifiers. Throws for an identifier nobody described. */
export function rawValue(id: string, value: number | string | null): string {
	const rule = identifiers.get(id);
	if (!rule) throw new RangeError(`identifier ${id} is not in the library`);
	return encodeIdentifier(rule, value);
}

/** What every module on this vehicle can tell; null for anything else. */
export function commonValue(id: string, world: World, software: string): string | null {
	switch (id) {
		case 'F190':
			return rawValue(id, world.vin);
		case 'F195':
			return rawValue(id, software);
		case 'F442':
			return rawValue(id, world.supplyVolts);
		case 'F4A6':
			return rawValue(id, world.motion.odometerM / 1000);
		case 'F40D':
			return rawValue(id, world.brakeMessage?.vehicleKmh ?? 0);
		default:
			return null;
	}
}
