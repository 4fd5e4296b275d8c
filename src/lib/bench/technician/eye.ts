import { mateOf } from '../../../../library/positions';
import { libraryFault } from '../faults/benchFault';
import type { BenchVehicle } from '../vehicle';

/** Chance that a person who looks for it sees it, by what is looked at and the fault that is there. */
const SEES: Record<string, Record<string, number>> = {
	ring: {
		'ring-tooth-missing': 0.95,
		'ring-cracked': 0.9,
		'ring-run-out': 0.5,
		'ring-loose': 0.8,
		'ring-creeping': 0.7,
		'ring-moved': 0.7,
		'ring-wrong-count': 0.8,
		'encoder-dust': 0.9,
		'bearing-play': 0.6
	},
	encoder: { 'encoder-reversed': 0.93, 'encoder-dust': 0.95, 'encoder-weak': 0.75 },
	seating: { 'gap-rust': 0.85, 'gap-sensor-loose': 0.9, 'gap-chips': 0.85, 'sensor-wrong-part': 0.7 },
	bracket: { 'gap-bracket-bent': 0.95 },
	lead: {
		'lead-chafed': 0.85,
		'lead-short-to-ground': 0.75,
		'lead-feed-short-to-ground': 0.75,
		'lead-short-to-supply': 0.6,
		'lead-wires-touch': 0.5,
		'lead-open': 0.45,
		'lead-return-open': 0.45,
		'lead-high-resistance': 0.4,
		'lead-breaks-when-turned': 0.7,
		'lead-pulled-tight': 0.8,
		'lead-picks-up-noise': 0.7,
		'lead-beside-relay': 0.6
	},
	clips: { 'lead-pulled-tight': 0.9, 'lead-chafed': 0.4, 'lead-picks-up-noise': 0.4 },
	pins: {
		'sensor-plug-corroded': 0.95,
		'sensor-plug-loose': 0.75,
		'sensor-pin-pushed-back': 0.9,
		'sensor-plug-wet': 0.6
	},
	water: { 'sensor-plug-wet': 0.9, 'sensor-plug-corroded': 0.8 }
};
/** Something sound that looks bad. */
const IMAGINED = 0.02;
/** A gap is measured, with a feeler, and too wide from here against what it should be. */
const FEELER_MM = 0.1;
const TOO_WIDE = 1.5;
/** How well a dial gauge is read, and half of the swing from which a ring is called out of true. */
const GAUGE_MM = 0.03;
const OUT_FROM_MM = 0.15;
/** A size stands on the sidewall, whether it is far off or near. */
const OF_AXLE = { 'tyres-odd-axle': 0.96 };
const SIDEWALL = { ...OF_AXLE, 'tyre-other-size': 0.96, 'tyre-temporary-spare': 0.99 };
const BALD_SHARE = 0.3;

/** What a person sees who looks at a place of a vehicle. Eyes miss things and imagine some. */
export class Eye {
	constructor(
		private readonly vehicle: BenchVehicle,
		private readonly random: () => number
	) {}

	private has(place: string, chances: Record<string, number>): boolean {
		return this.vehicle.faults.some(
			({ id, at }) => at === place && this.random() < (chances[id] ?? 0) && libraryFault(id) !== undefined
		);
	}

	/** One inspection of the library at a wheel. */
	inspect(position: string, inspection: string): 'good' | 'bad' {
		if (inspection === 'gap') return this.gap(position);
		const seen = this.has(position, SEES[inspection] ?? {});
		return seen || this.random() < IMAGINED ? 'bad' : 'good';
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
		if (this.has(position, SIDEWALL) || this.has(mateOf(wheel.position), OF_AXLE)) return 'other-size';
		return this.has(position, { 'tyre-soft': 0.97 }) ? 'soft' : 'right';
	}

	fuse(name: string): string {
		if (this.vehicle.network.blownFuses.has(name)) return 'blown';
		return this.has(name, { 'fuse-loose': 0.8 }) ? 'loose' : 'whole';
	}

	ground(name: string): string {
		const seen = this.has(name, { 'ground-rusty': 0.9, 'ground-rusty-wet': 0.8 });
		return seen || this.random() < IMAGINED ? 'rusty' : 'clean';
	}

	splice(name: string): string {
		return this.has(name, { 'splice-corroded': 0.97 }) ? 'corroded' : 'clean';
	}

	/** Play is felt by hand. */
	rock(position: string): string {
		return this.has(position, { 'bearing-play': 0.85 }) || this.random() < IMAGINED ? 'play' : 'tight';
	}

	/** A dial gauge on the ring, over one turn. */
	runsTrue(position: string): string {
		const wheel = this.vehicle.world.wheels.find((one) => one.position === position);
		const swing = (this.random() * 2 - 1) * GAUGE_MM;
		return (wheel?.ring.runOutMm ?? 0) + swing > OUT_FROM_MM ? 'out' : 'true';
	}

	middlePlug(position: string): string {
		const seen = this.has(position, { 'middle-plug-corroded': 0.95 });
		return seen || this.random() < IMAGINED ? 'corroded' : 'clean';
	}

	modulePlug(role: string): string {
		if (this.has(role, { 'module-supply-corroded': 0.9, 'module-ground-corroded': 0.9 })) return 'corroded';
		// What a wheel's pins in this plug have, is seen here too.
		for (const { position } of this.vehicle.world.wheels) {
			if (this.has(position, { 'module-plug-water': 0.9 })) return 'wet';
			if (this.has(position, { 'module-pin-spread': 0.7 })) return 'spread';
		}
		return this.random() < IMAGINED ? 'corroded' : 'clean';
	}
}
