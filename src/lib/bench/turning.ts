import type { SensorKind } from '../../../library/sensorKinds';
import { toothFrequencyHz } from './physics/ring';
import { activeThreshold, GENERATOR_OHMS, neededField, PASSIVE_INPUT_V } from './physics/wheelCircuit';
import type { Wheel, World } from './world';

/** A quick hand with a piece of steel. */
const STEEL_HZ = 8;

/** Turns the rings of a vehicle past their sensors, and counts what reaches the module: from the ring or from hands. */
export class Turning {
	/** @param coilOhmsOf resistance of a wheel's passive sensor as warm as it is */
	constructor(
		private readonly world: World,
		private readonly stepS: number,
		private readonly coilOhmsOf: (wheel: number) => number
	) {}

	/** One step. */
	step(): void {
		const { world, stepS } = this;
		const { wheels, motion } = world;
		for (let i = 0; i < wheels.length; i++) {
			const wheel = wheels[i];
			if (!wheel) continue;
			const mps = motion.wheelMps[i] ?? 0;
			const teeth = wheel.ring.at.length;
			const hertz = toothFrequencyHz(teeth, mps, wheel.circumferenceM);
			// Jumper leads may have put this sensor on the harness of another corner.
			const lentTo = wheels.find(({ substitute }) => substitute?.kind === 'mate' && substitute.wheel === i);
			const circuit = lentTo ? lentTo.circuit : wheel.circuit;
			const need = circuit
				? neededField(wheel.family, circuit, wheel.sensor, this.coilOhmsOf(i), hertz, teeth)
				: Infinity;
			wheel.passing = wheel.rotor.step(wheel.ring, mps, wheel.circumferenceM, need, world.timeS, stepS);
			if (wheel.sensor.spuriousHz > 0) this.addPulses(wheel, wheel.sensor.spuriousHz);
			if (wheel.steel)
				this.passSteel(wheel, circuit?.edges === true && wheel.sensor.works && wheel.sensor.stuckAt === null);
		}
		for (const wheel of wheels) if (wheel.substitute) this.substitute(wheel);
	}

	/** Pulses that do not come from the ring, evenly spaced with a start that nobody knows. */
	private addPulses({ passing }: Wheel, hertz: number): void {
		const expected = hertz * this.stepS;
		const pulses = Math.floor(expected) + (this.world.random() < expected % 1 ? 1 : 0);
		if (pulses === 0) return;
		if (passing.pulses === 0) passing.lastAgoS = this.world.random() * this.stepS;
		passing.pulses += pulses;
	}

	private passSteel(wheel: Wheel, seen: boolean): void {
		const { steel, passing } = wheel;
		if (!steel) return;
		steel.phase += STEEL_HZ * this.stepS;
		if (steel.phase < 1) return;
		steel.phase -= 1;
		steel.left -= 1;
		if (seen) {
			passing.pulses += 1;
			passing.lastAgoS = 0;
		}
		if (steel.left === 0) wheel.steel = null;
	}

	/** Current levels are the generator's own; the voltage for a passive input has to be high enough when it arrives. */
	private generatorReaches(family: SensorKind, volts: number, gainOhms: number): boolean {
		if (family !== 'passive') return true;
		return (volts * gainOhms) / GENERATOR_OHMS >= PASSIVE_INPUT_V * this.world.scatter.threshold;
	}

	private substitute(wheel: Wheel): void {
		const { substitute, circuit } = wheel;
		const passing = { pulses: 0, lastAgoS: 0 };
		if (substitute?.kind === 'mate') {
			const mate = this.world.wheels[substitute.wheel];
			if (mate) {
				Object.assign(passing, mate.passing);
				mate.passing.pulses = 0;
			}
		} else if (
			substitute &&
			circuit?.edges &&
			this.generatorReaches(wheel.family, substitute.volts, circuit.gain)
		) {
			substitute.phase += substitute.hertz * this.stepS;
			passing.pulses = Math.floor(substitute.phase);
			substitute.phase -= passing.pulses;
			passing.lastAgoS = substitute.hertz > 0 ? substitute.phase / substitute.hertz : 0;
		}
		wheel.passing = passing;
	}

	/** Tooth frequency of a wheel as it turns now, in Hz. */
	toothHz(wheel: number): number {
		const { world } = this;
		const one = world.wheels[wheel];
		return one
			? toothFrequencyHz(one.ring.at.length, world.motion.wheelMps[wheel] ?? 0, one.circumferenceM)
			: 0;
	}

	/**
	 * Field at which a sensor itself switches, whatever its harness makes of it: what a probe at the sensor shows. Zero for
	 * a passive one, which has no threshold of its own.
	 */
	neededFieldOf(wheel: number): number {
		const one = this.world.wheels[wheel];
		if (!one || !one.sensor.works || one.sensor.stuckAt !== null) return Infinity;
		return one.family === 'passive' ? 0 : activeThreshold(one.ring.at.length) * one.sensor.dullness;
	}
}
