import type { SensorKind } from '../../../../library/sensorKinds';
import { nodeVolts, type Solution } from '../physics/network';
import type { WheelCircuit } from '../physics/wheelCircuit';

/**
 * Currents that devices push around the network besides its own sources, and what each of them does to a pair of nodes:
 * everything a probe sees is its voltage at rest plus the sum of current times transfer resistance.
 */
export interface Loop {
	/** Which wheel's sensor it is. */
	wheel: number;
	circuit: WheelCircuit;
	/** Volts between the probed nodes for one ampere of the device. */
	ohms: number;
}

/** Smaller than this a loop moves nothing a probe could show. */
const NOTHING_OHMS = 1e-6;

/** Rest voltage between two nodes, and the loops that move it. */
export function seenBetween(
	solution: Solution,
	circuits: readonly (WheelCircuit | null)[],
	families: readonly SensorKind[],
	tip: string,
	clip: string
): { rest: number; loops: Loop[] } {
	const rest = nodeVolts(solution, tip) - nodeVolts(solution, clip);
	const loops = circuits.flatMap((circuit, wheel): Loop[] => {
		if (!circuit || circuit.from === '') return [];
		// A passive sensor drives its current out of its first pin, the others draw it in there.
		const [a, b] = families[wheel] === 'passive' ? [circuit.to, circuit.from] : [circuit.from, circuit.to];
		const ohms = solution.signals.loopTransferOhms(a, b, tip, clip);
		return Math.abs(ohms) > NOTHING_OHMS ? [{ wheel, circuit, ohms }] : [];
	});
	return { rest, loops };
}
