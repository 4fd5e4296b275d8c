import { isByEyeAlone, sightsOf, soundSights } from '../../../../library/reason/sights';
import { BAD, signOf } from '../../../../library/reason/signs';
import { faultOf } from '../faults/benchFault';
import type { BenchVehicle } from '../vehicle';

/** A gap is measured, with a feeler, and too wide from here against what it should be. */
const FEELER_MM = 0.1;
const TOO_WIDE = 1.5;
/** How well a dial gauge is read, and half of the swing from which a ring is called out of true. */
const GAUGE_MM = 0.03;
const OUT_FROM_MM = 0.15;

/** What a person sees who looks at a place of a vehicle. Eyes miss things and imagine some. */
export class VisualInspection {
	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly random: () => number
	) {}

	/** One inspection of the library at a wheel. */
	inspect(position: string, inspection: string): string {
		return inspection === 'gap' ? this.gap(position) : this.look(`look:${inspection}`, position);
	}

	private gap(position: string): 'good' | 'bad' {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		if (!wheel) return 'good';
		const swing = (this.random() * 2 - 1) * FEELER_MM;
		const widest = wheel.ring.gapMm + wheel.ring.runOutMm + swing;
		return widest > wheel.type.gapMm * TOO_WIDE + FEELER_MM ? 'bad' : 'good';
	}

	/** What is seen of a place by whoever looks for it: the fault that shows there so, or what is imagined. */
	look(id: string, place: string): string {
		const sign = signOf(id);
		if (!isByEyeAlone(sign)) throw new RangeError(`${id} is not seen by eye`);
		const seenAt = { kind: sign.about, place };
		for (const fault of this.vehicle.faults) {
			const seen = drawn(
				sightsOf(faultOf(fault), fault.at, sign, seenAt, this.vehicle.world.type),
				this.random()
			);
			if (seen !== null) return seen;
		}
		const imagined = soundSights(sign);
		imagined.delete(sign.good);
		// Whoever looks here says what it is.
		imagined.delete(BAD);
		return drawn(imagined, this.random()) ?? sign.good;
	}

	/** A dial gauge on the ring, over one turn. */
	runsTrue(position: string): string {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		const swing = (this.random() * 2 - 1) * GAUGE_MM;
		return (wheel?.ring.runOutMm ?? 0) + swing > OUT_FROM_MM ? 'out' : 'true';
	}
}

/** One of several that exclude each other, by their chances; null where it is none of them. */
function drawn(chances: ReadonlyMap<string, number>, at: number): string | null {
	let below = 0;
	for (const [outcome, p] of chances) {
		below += p;
		if (at < below) return outcome;
	}
	return null;
}
