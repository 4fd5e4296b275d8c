import { isOfAxle } from '../../../../library/faults';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { sharedPlugsOf } from '../../../../library/sharedPlugs';
import type { VehicleType } from '../../../../library';
import { HOT_AIR_C } from '../../../../library/reason/provoked';
import { GENERAL_METHOD } from '../../../../library/reason/notDescribed';
import { mateOf, type Position } from '../../../../library/positions';
import type { Motion } from '../motion';
import { faultOf, type BenchFault } from './benchFault';

/** What hands do to make a fault show or hide. */
export interface Disturbance {
	/** Place that is being wiggled, which links of a wheel's path there (null = all of them), until when. */
	wiggled: { at: string; links: readonly string[] | null; untilS: number } | null;
	/** Places that water was sprayed on, until when each dries. */
	sprayed: Map<string, number>;
	/** Places that hot air was blown at, until when each is cold again. */
	warmed: Map<string, number>;
}

interface Present {
	fault: BenchFault;
	/** A fault that comes and goes is there until then. */
	untilS: number;
	active: boolean;
}

const USUAL_STAY_S: readonly [number, number] = [0.3, 1.5];
/** A hand shakes a place harder than any road. */
const WIGGLE_PER_S = 2;
const GROWTH_STEP = 0.05;

/** The faults of a vehicle, and which of them show at this moment. */
export class Activity {
	private list: Present[] = [];
	private lastOdometerM: number | null = null;
	private changed = true;

	constructor(
		private readonly random: () => number,
		private readonly type: VehicleType
	) {}

	get all(): BenchFault[] {
		return this.list.map(({ fault }) => fault);
	}

	get active(): BenchFault[] {
		return this.list.filter((present) => present.active).map(({ fault }) => fault);
	}

	set(faults: readonly BenchFault[]): void {
		this.list = faults.map((fault) => ({
			fault: { ...fault },
			untilS: -Infinity,
			active: alwaysThere(fault)
		}));
		this.changed = true;
	}

	add(fault: BenchFault): void {
		this.list.push({ fault: { ...fault }, untilS: -Infinity, active: alwaysThere(fault) });
		this.changed = true;
	}

	/** Takes away what a repair at a place cures. @returns how many faults that were */
	cure(repair: string, at: string): number {
		const before = this.list.length;
		const cured = (one: BenchFault) => {
			const fault = faultOf(one);
			const { curedBy, effects } = fault;
			// Whoever searches the whole vehicle comes past every place.
			const everywhere = repair === GENERAL_METHOD && at === 'vehicle';
			const here = one.at === at || (isOfAxle(fault) && mateOf(one.at as Position) === at);
			// What is taught or coded is put right where it is kept; a crooked sensor stays crooked.
			const teaches = repair === 'calibrate' || repair === 'code-module';
			return (
				(here || everywhere) &&
				curedBy.includes(repair) &&
				(!teaches || effects.every((effect) => effect.do === 'keep'))
			);
		};
		this.list = this.list.filter(({ fault }) => !cured(fault));
		if (this.list.length !== before) this.changed = true;
		return before - this.list.length;
	}

	/** @returns whether the faults that show are others than before */
	step(motion: Motion, disturbance: Disturbance, timeS: number, dtS: number): boolean {
		if (this.list.length === 0 && !this.changed) return false;
		this.grow(motion);
		for (const present of this.list) {
			if (alwaysThere(present.fault)) continue;
			const active = this.shows(present, motion, disturbance, timeS, dtS);
			if (active === present.active) continue;
			present.active = active;
			this.changed = true;
		}
		const { changed } = this;
		this.changed = false;
		return changed;
	}

	private shows(
		present: Present,
		motion: Motion,
		disturbance: Disturbance,
		timeS: number,
		dtS: number
	): boolean {
		const { fault } = present;
		const { when = {} } = faultOf(fault);
		const kmh = motion.speedMps * 3.6;
		const wet = (disturbance.sprayed.get(fault.at) ?? -Infinity) > timeS ? 1 : motion.around.wet;
		if (when.wet !== undefined && wet < when.wet) return false;
		const warmC = (disturbance.warmed.get(fault.at) ?? -Infinity) > timeS ? HOT_AIR_C : motion.hubC;
		if (when.aboveC !== undefined && warmC < when.aboveC) return false;
		if (when.aboveKmh !== undefined && kmh < when.aboveKmh) return false;
		if (when.steeringDeg !== undefined && Math.abs(motion.steeringDeg) < when.steeringDeg) return false;
		const everyKm = fault.everyKm ?? when.everyKm;
		if (everyKm === undefined && when.shaking === undefined) return true;
		if (timeS < present.untilS) return true;
		const wiggled = this.isWiggled(fault, disturbance.wiggled, timeS);
		const perS =
			(everyKm === undefined ? 0 : this.turnedMps(fault, motion) / (everyKm * 1000)) +
			// A distance that was asked for replaces the road's own rate.
			(fault.everyKm !== null || when.shaking === undefined
				? 0
				: when.shaking * motion.around.roughness * (kmh / 100)) +
			(wiggled ? WIGGLE_PER_S : 0);
		// Poisson events: the chance of one in a short step.
		if (this.random() >= 1 - Math.exp(-perS * dtS)) return false;
		const [least, most] = when.forS ?? USUAL_STAY_S;
		present.untilS = timeS + least + this.random() * (most - least);
		return true;
	}

	/** What goes by kilometres goes by those of the road; a sensor does by those of its wheel, also in the air. */
	private turnedMps(fault: BenchFault, motion: Motion): number {
		if (faultOf(fault).link !== 'sensor') return motion.speedMps;
		const wheel = this.type.wheels.findIndex(({ position }) => position === fault.at);
		return Math.max(motion.speedMps, Math.abs(motion.wheelMps[wheel] ?? 0));
	}

	/** A wheel's socket at the module is moved where the module is; a plug that wheels share, with the lead of each. */
	private isWiggled(fault: BenchFault, wiggled: Disturbance['wiggled'], timeS: number): boolean {
		if (!wiggled || wiggled.untilS <= timeS) return false;
		const { link } = faultOf(fault);
		const reader = link === 'module-connector' ? wheelReaderOf(this.type)?.role : undefined;
		const shared = sharedPlugsOf(this.type).find(({ name }) => name === fault.at)?.wheels ?? [];
		const where: string[] = [reader ?? fault.at, ...shared];
		return where.includes(wiggled.at) && (wiggled.links === null || wiggled.links.includes(link));
	}

	/** Corrosion grows with the kilometres, in steps that are worth a new solution of the network. */
	private grow(motion: Motion): void {
		const km = motion.odometerM / 1000;
		this.lastOdometerM ??= motion.odometerM;
		const drivenKm = km - this.lastOdometerM / 1000;
		for (const { fault } of this.list) {
			const rate = faultOf(fault).growsPer1000Km;
			if (!rate || fault.severity >= 1) continue;
			const growth = (rate * drivenKm) / 1000;
			if (growth < GROWTH_STEP) continue;
			fault.severity = Math.min(1, fault.severity + growth);
			this.changed = true;
			this.lastOdometerM = motion.odometerM;
		}
	}
}

const alwaysThere = (fault: BenchFault) => fault.everyKm === null && faultOf(fault).when === undefined;
