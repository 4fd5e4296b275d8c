import { parsePair, type DiagnosticPair } from '../../src/lib/core/bus/diagnosticPair';
import { routeOfAddress } from '../../src/lib/core/can/canRoute';
import { isKnown } from './known';
import type { ModuleType, VehicleType } from './vehicleType';

/** How a vehicle is reached: over its network (ISO 13400-2), or on its CAN bus (ISO 15765-2). */
export type Over = 'network' | 'can';

/** Where modules answer, by the address by which a case knows them. */
export interface LinkRoutes {
	network: ReadonlyMap<number, number>;
	can: ReadonlyMap<number, DiagnosticPair>;
}

/** Where the modules of a vehicle answer over each link, as far as that is known and their address does not say it. */
export function linkRoutesOf({ modules }: Pick<VehicleType, 'modules'>): LinkRoutes {
	const [network, can] = [new Map<number, number>(), new Map<number, DiagnosticPair>()];
	for (const { address, doip, can: identifiers } of modules) {
		const key = parseInt(address, 16);
		const pair = identifiers === undefined ? null : parsePair(identifiers);
		if (doip !== undefined) network.set(key, parseInt(doip, 16));
		if (pair?.ok) can.set(key, pair.value);
	}
	return { network, can };
}

/** The modules of which somebody has told where they answer: nobody is called silent at an address that was made up. */
export const modulesToAsk = (type: VehicleType, over: Over): ModuleType[] =>
	type.modules.filter((module) => {
		const { role, address, doip, can } = module;
		const addressKnown = isKnown(type, `modules.${role}.address`);
		if (over === 'network') return doip !== undefined || addressKnown;
		return can !== undefined || (addressKnown && routeOfAddress(parseInt(address, 16)) !== null);
	});
