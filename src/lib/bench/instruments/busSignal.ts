import type { VehicleType } from '../../../../library';
import { dominantCurrents, portsOn } from '../physics/bus';
import type { Solution } from '../physics/network';

const BIT_S = 2e-6;
const FRAME_EVERY_S = 0.001;
const FRAME_BITS = 111;

/** Volts that each sender adds between two nodes while it holds a segment dominant. */
export interface BusSender {
	volts: number;
	/** The bits of one of its frames, 1 = dominant. */
	bits: Uint8Array;
}

/** Senders of one segment that move the voltage between two nodes; one frame a millisecond, in turn. */
export function busSenders(type: VehicleType, solution: Solution, tip: string, clip: string): BusSender[][] {
	return type.harness.segments.flatMap(({ name }) => {
		const senders = portsOn(type, name)
			.filter(({ role }) => solution.rails.get(role)?.works)
			.map((port, i): BusSender => {
				const currents = dominantCurrents(solution, port);
				const moved = (node: string) =>
					currents.reduce(
						(sum, { node: into, amps }) => sum + amps * solution.signals.transferOhms(into, node),
						0
					);
				return { volts: moved(tip) - moved(clip), bits: frameBits(i + 1) };
			});
		return senders.some(({ volts }) => Math.abs(volts) > 1e-4) ? [senders] : [];
	});
}

/** Which of a segment's senders is dominant at a moment, as the volts it adds. */
export function busVolts(senders: readonly BusSender[], timeS: number): number {
	const frame = Math.floor(timeS / FRAME_EVERY_S);
	const bit = Math.floor((timeS - frame * FRAME_EVERY_S) / BIT_S);
	const sender = senders[frame % senders.length];
	return sender && bit < FRAME_BITS && sender.bits[bit] ? sender.volts : 0;
}

/** A frame of bits that never has more than five alike in a row (ISO 11898-1 stuffing), different for each sender. */
function frameBits(seed: number): Uint8Array {
	const bits = new Uint8Array(FRAME_BITS);
	let state = seed * 2_654_435_761;
	let run = 0;
	bits[0] = 1;
	for (let i = 1; i < FRAME_BITS; i++) {
		state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
		let bit = (state >>> 24) & 1;
		run = bit === bits[i - 1] ? run + 1 : 0;
		if (run >= 5) {
			bit = 1 - bit;
			run = 0;
		}
		bits[i] = bit;
	}
	// Acknowledge apart, a frame ends recessive.
	bits.fill(0, FRAME_BITS - 8);
	return bits;
}
