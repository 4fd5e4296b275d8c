import { channelOf, positionOf, type Channel, type Position } from './positions';
import { z } from 'zod';
import { identifiers, type VehicleType } from './index';
import liveSignalsFile from './liveSignals.json' with { type: 'json' };
import { signals } from './signals';
import { ModuleRole } from './vehicles';

const LiveSignalRule = z.object({
	signal: z.string(),
	id: z.string().refine((id) => identifiers.has(id), 'no such identifier'),
	/** Modules that answer it; the first that the vehicle has is asked. */
	roles: z.array(ModuleRole).min(1),
	/** From the identifier's unit to the signal's. */
	factor: z.number().default(1)
});
const rules = z.array(LiveSignalRule).parse(liveSignalsFile.signals);

/** A value that a vehicle can be asked for again and again. */
export interface LiveSignal {
	signal: string;
	name: string;
	unit: string;
	id: string;
	factor: number;
	/** Address of the module that answers, four hex digits. */
	address: string;
	moduleName: string;
}

/** What a type of vehicle can be asked for, wheels first; only the wheels that it has. */
export function liveSignals(type: VehicleType): LiveSignal[] {
	const wheels = new Set<string>(type.wheels.map(({ position }) => channelOf(position)));
	return rules.flatMap(({ signal, id, roles, factor }): LiveSignal[] => {
		if (positionOf(signal) && !wheels.has(signal)) return [];
		const module = roles.flatMap((role) => type.modules.find((m) => m.role === role) ?? [])[0];
		if (!module) return [];
		const words = signals.get(signal);
		const name = words?.name ?? signal.replaceAll('_', ' ');
		return [
			{
				signal,
				id,
				factor,
				name,
				unit: words?.unit ?? 'km/h',
				address: module.address,
				moduleName: module.name
			}
		];
	});
}

/** The signal of a wheel's speed, where this vehicle can be asked for it. */
export const wheelSignal = (type: VehicleType, position: Position): Channel | null =>
	liveSignals(type).some(({ signal }) => signal === channelOf(position)) ? channelOf(position) : null;
