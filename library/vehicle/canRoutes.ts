import { parsePair, type DiagnosticPair } from '../../src/lib/core/bus/diagnosticPair';
import { routeOfAddress } from '../../src/lib/core/can/canRoute';
import type { VehicleType } from './vehicleType';

/** On which identifiers the modules of a vehicle are asked and answer on CAN, by address, as far as that is known. */
export function canRoutesOf({ modules }: Pick<VehicleType, 'modules'>): Map<number, DiagnosticPair> {
	return new Map(
		modules.flatMap(({ address, can }) => {
			const number = parseInt(address, 16);
			const pair = can === undefined ? null : parsePair(can);
			const route = pair?.ok ? pair.value : routeOfAddress(number);
			return route ? [[number, route] as const] : [];
		})
	);
}
