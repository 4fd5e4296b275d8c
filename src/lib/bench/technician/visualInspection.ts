import { mateOf } from '../../../../library/positions';
import { signOf } from '../../../../library/reason/signs';
import { libraryFault } from '../faults/benchFault';
import type { BenchVehicle } from '../vehicle';

/** Something sound that looks bad. */
const IMAGINED = 0.02;
/** A gap is measured, with a feeler, and too wide from here against what it should be. */
const FEELER_MM = 0.1;
const TOO_WIDE = 1.5;
/** How well a dial gauge is read, and half of the swing from which a ring is called out of true. */
const GAUGE_MM = 0.03;
const OUT_FROM_MM = 0.15;
const BALD_SHARE = 0.3;

/** What a person sees who looks at a place of a vehicle. Eyes miss things and imagine some. */
export class VisualInspection {
	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly random: () => number
	) {}

	/** Whether a fault at a place is seen so. */
	private sees(place: string, sign: string, as: string, atMate = false): boolean {
		return this.vehicle.faults.some(({ id, at }) => {
			if (at !== place) return false;
			const sight = libraryFault(id)?.visible.find((one) => one.sign === sign && one.as === as);
			const surely = sight && (!atMate || sight.atMate) ? sight.surely : 0;
			return this.random() < surely;
		});
	}

	/** One inspection of the library at a wheel. */
	inspect(position: string, inspection: string): 'good' | 'bad' {
		if (inspection === 'gap') return this.gap(position);
		return this.look(`look:${inspection}`, position) === 'bad' ? 'bad' : 'good';
	}

	private gap(position: string): 'good' | 'bad' {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		if (!wheel) return 'good';
		const swing = (this.random() * 2 - 1) * FEELER_MM;
		const widest = wheel.ring.gapMm + wheel.ring.runOutMm + swing;
		return widest > wheel.type.gapMm * TOO_WIDE + FEELER_MM ? 'bad' : 'good';
	}

	tyre(position: string): string {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		if (!wheel) return 'right';
		if (wheel.gripShare < BALD_SHARE) return 'bald';
		// A size stands on the sidewall, whether it is far off or near.
		const size = (at: string, atMate: boolean) => this.sees(at, 'tyre', 'other-size', atMate);
		if (size(position, false) || size(mateOf(wheel.position), true)) return 'other-size';
		return this.sees(position, 'tyre', 'soft') ? 'soft' : 'right';
	}

	fuse(name: string): string {
		if (this.vehicle.network.blownFuses.has(name)) return 'blown';
		return this.sees(name, 'fuse', 'loose') ? 'loose' : 'whole';
	}

	/** What is seen of a place by whoever looks for it: the fault that shows there so, or what is imagined. */
	look(sign: string, place: string): string {
		const { good, outcomes, imagined } = signOf(sign);
		const others = Object.keys(outcomes).filter((outcome) => outcome !== good);
		const seen = others.find((outcome) => this.sees(place, sign, outcome));
		if (seen !== undefined) return seen;
		return imagined > 0 && this.random() < imagined ? (others[0] ?? good) : good;
	}

	/** A dial gauge on the ring, over one turn. */
	runsTrue(position: string): string {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		const swing = (this.random() * 2 - 1) * GAUGE_MM;
		return (wheel?.ring.runOutMm ?? 0) + swing > OUT_FROM_MM ? 'out' : 'true';
	}

	modulePlug(role: string): string {
		if (this.sees(role, 'module-plug', 'corroded')) return 'corroded';
		// What a wheel's pins in this plug have, is seen here too.
		for (const { position } of this.vehicle.world.wheels) {
			if (this.sees(position, 'module-plug', 'wet')) return 'wet';
			if (this.sees(position, 'module-plug', 'spread')) return 'spread';
		}
		return this.random() < IMAGINED ? 'corroded' : 'clean';
	}
}
