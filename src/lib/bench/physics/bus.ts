import type { ModuleRole, VehicleType } from '../../../../library';
import { Matrix, solve } from 'ml-matrix';
import type { NodalAnalysis } from '../../core/electrical/nodalAnalysis';
import type { Solution } from './network';
import { pinFor } from './wiring';

/** A source behind a resistance that is held to a node: a bus driver, a meter, a signal source. */
export interface SourceAt {
	node: string;
	volts: number;
	ohms: number;
}

/**
 * Amperes that each source pushes into its node when all are connected at once: (R + Z)·i = V − v, with Z the transfer
 * resistances of the network.
 */
export function sourceCurrents(net: NodalAnalysis, sources: readonly SourceAt[]): number[] {
	const n = sources.length;
	const z = Matrix.zeros(n, n);
	const drive = Matrix.zeros(n, 1);
	sources.forEach((source, i) => {
		drive.set(i, 0, source.volts - net.volts(source.node));
		sources.forEach((other, j) =>
			z.set(i, j, net.transferOhms(other.node, source.node) + (i === j ? source.ohms : 0))
		);
	});
	return solve(z, drive).to1DArray();
}

/** ISO 11898-2: a receiver takes this much between the lines as dominant, … */
const DOMINANT_FROM_V = 0.9;
/** … and no more than this as recessive. */
const RECESSIVE_TO_V = 0.5;
/** Common mode in which a receiver must work. */
const COMMON_FROM_V = -2;
const COMMON_TO_V = 7;
/** Each of a transmitter's two switches, from 5 V and from its ground. */
const DRIVER_OHMS = 45;
const DRIVER_VOLTS = 5;

export interface BusPort {
	role: ModuleRole;
	high: string;
	low: string;
}

/** Who is on a segment, and by which pins. The gateway is on all of them. */
export function portsOn(type: VehicleType, segment: string): BusPort[] {
	return type.modules.flatMap((module) => {
		const second = module.role === 'gateway' && module.segment !== segment;
		if (module.segment !== segment && !second) return [];
		const high = pinFor(module, second ? 'second-high' : 'bus-high');
		const low = pinFor(module, second ? 'second-low' : 'bus-low');
		return high && low ? [{ role: module.role, high, low }] : [];
	});
}

/** Currents of a sender that holds the bus dominant. */
export function dominantCurrents(
	{ signals, rails }: Solution,
	sender: BusPort
): { node: string; amps: number }[] {
	const rail = rails.get(sender.role);
	if (!rail?.works) return [];
	const sources = [
		{ node: sender.high, volts: rail.ground + DRIVER_VOLTS, ohms: DRIVER_OHMS },
		{ node: sender.low, volts: rail.ground, ohms: DRIVER_OHMS }
	];
	const amps = sourceCurrents(signals, sources);
	return sources.map(({ node }, i) => ({ node, amps: amps[i] ?? 0 }));
}

/** Volts of a node with currents pushed in. */
export const withCurrents = (
	net: NodalAnalysis,
	node: string,
	currents: readonly { node: string; amps: number }[]
): number =>
	currents.reduce(
		(volts, { node: into, amps }) => volts + amps * net.transferOhms(into, node),
		net.volts(node)
	);

/** Whether what a sender says can be read by a receiver on the same segment: both levels within what its pins can tell. */
export function hears(solution: Solution, sender: BusPort, receiver: BusPort): boolean {
	const ground = solution.rails.get(receiver.role)?.ground ?? 0;
	const net = solution.signals;
	const levels = (currents: { node: string; amps: number }[]) => {
		const high = withCurrents(net, receiver.high, currents) - ground;
		const low = withCurrents(net, receiver.low, currents) - ground;
		return { across: high - low, common: (high + low) / 2 };
	};
	const dominant = levels(dominantCurrents(solution, sender));
	const recessive = levels([]);
	const inRange = ({ common }: { common: number }) => common >= COMMON_FROM_V && common <= COMMON_TO_V;
	return (
		dominant.across >= DOMINANT_FROM_V &&
		recessive.across <= RECESSIVE_TO_V &&
		inRange(dominant) &&
		inRange(recessive)
	);
}

/**
 * Who can be heard by whom on the whole vehicle, gateway relaying between segments: `heardBy[receiver][sender]` in the order
 * of the type's modules. Modules without power neither speak nor hear.
 */
export function whoHearsWhom(type: VehicleType, solution: Solution): boolean[][] {
	const known = solution.derived.get('hears') as boolean[][] | undefined;
	if (known) return known;
	const index = new Map(type.modules.map((module, i) => [module.role, i]));
	const works = (role: ModuleRole) => solution.rails.get(role)?.works ?? false;
	const table = type.modules.map(() => type.modules.map(() => false));
	const mark = (receiver: ModuleRole, sender: ModuleRole) => {
		const row = table[index.get(receiver) ?? -1];
		const at = index.get(sender);
		if (row && at !== undefined) row[at] = true;
	};
	for (const { name } of type.harness.segments) {
		const ports = portsOn(type, name).filter(({ role }) => works(role));
		for (const sender of ports) {
			for (const receiver of ports) {
				// A sender must read back its own bits, or its frames never end well.
				if (hears(solution, sender, sender) && hears(solution, sender, receiver))
					mark(receiver.role, sender.role);
			}
		}
	}
	const gateway = index.get('gateway') ?? 0;
	const toGateway = table[gateway]?.slice() ?? [];
	const fromGateway = table.map((row) => row[gateway] ?? false);
	for (const [receiver, { segment }] of type.modules.entries()) {
		for (const [sender, other] of type.modules.entries()) {
			if (segment !== other.segment && fromGateway[receiver] && toGateway[sender]) {
				const row = table[receiver];
				if (row) row[sender] = true;
			}
		}
	}
	solution.derived.set('hears', table);
	return table;
}
