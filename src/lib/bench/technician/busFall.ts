import { otherEndOf } from '../../../../library/reason/tests';
import { portsOn } from '../physics/bus';
import { BATTERY, BODY } from '../physics/wiring';
import type { BenchVehicle } from '../vehicle';

/** A line that reads less than this against something is shorted to it; terminators and inputs are far above. */
const SHORTED_BELOW_OHMS = 25;
/** The short is here when the reading falls by this share of the wire between the two ends; a neighbour takes less. */
const WHOLE_WAY = 0.72;

/**
 * Milliohms from a bus line to what it is shorted to, at a module's plug and at the other end of its segment, with the
 * battery off. What the reading falls by is wire that the current no longer goes through: all of it only at the branch
 * that is shorted.
 */
export function busFall(vehicle: BenchVehicle, role: string): 'none' | 'here' | 'elsewhere' {
	const { world } = vehicle;
	const segment = world.type.modules.find((one) => one.role === role)?.segment ?? '';
	const ports = portsOn(world.type, segment);
	const here = ports.find((port) => port.role === role);
	const there = ports.find((port) => port.role === otherEndOf(world.type, role));
	if (!here || !there) return 'none';
	vehicle.turnKey('off');
	vehicle.advance(1);
	const net = world.solution.signals;
	const ohms = (a: string, b: string) => net.resistanceOhms(a, b);
	const wire = (node: string) => `${node}:w`;
	const line = (port: typeof here, which: 'high' | 'low') => wire(port[which]);
	const ways = (['high', 'low'] as const).flatMap((which) => [
		...[BODY, BATTERY].map((to) => ({ near: to, far: to, which, wires: 1 })),
		...(which === 'high' ? [{ near: line(here, 'low'), far: line(there, 'low'), which, wires: 2 }] : [])
	]);
	const read = ways.map(({ near, far, which, wires }) => ({
		here: ohms(line(here, which), near),
		there: ohms(line(there, which), far),
		between: ohms(line(here, which), line(there, which)) * wires
	}));
	vehicle.turnKey('on');
	vehicle.advance(4);
	const lowest = read.reduce((best, one) => (one.here < best.here ? one : best));
	if (lowest.here > SHORTED_BELOW_OHMS) return 'none';
	return lowest.there - lowest.here > WHOLE_WAY * lowest.between ? 'here' : 'elsewhere';
}
