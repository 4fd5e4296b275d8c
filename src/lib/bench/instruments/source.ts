import { fail, ok, type Result } from '../../core/result';
import type { SignalSource } from '../../core/electrical/ports';
import { GENERATOR_OHMS } from '../physics/wheelCircuit';
import type { BenchVehicle } from '../vehicle';

const LAMP_OHMS = 8;
const JUMPER_OHMS = 0.05;
const MOST_HZ = 5000;

/** Holds a signal source to the vehicle's wiring, or takes it off with null. One at a time, as a person has two hands. */
export function holdSource(vehicle: BenchVehicle, source: SignalSource | null): Result<null> {
	const { world } = vehicle;
	for (const wheel of world.wheels) wheel.substitute = null;
	vehicle.network.setClip(null);
	const done = source ? connect(vehicle, source) : ok(null);
	vehicle.rewired();
	return done;
}

function connect(vehicle: BenchVehicle, source: SignalSource): Result<null> {
	const { world, network } = vehicle;
	const find = (position: string) => world.wheels.findIndex((wheel) => wheel.position === position);
	switch (source.kind) {
		case 'sine':
		case 'square': {
			const wheel = world.wheels[find(source.position)];
			if (!wheel) return fail(`This vehicle has no wheel ${source.position}.`);
			if (!network.open.has(wheel.position)) return fail('The plug of that sensor is closed: open it first.');
			if (!(source.hertz >= 0 && source.hertz <= MOST_HZ)) return fail(`0 to ${MOST_HZ} Hz.`);
			// A sine has no edges steep enough for current levels, a square of current none for a coil's input.
			const fits = (source.kind === 'sine') === (wheel.family === 'passive');
			if (wheel.family === 'passive') {
				network.setClip({
					a: `${wheel.position}.1:w`,
					b: `${wheel.position}.2:w`,
					ohms: GENERATOR_OHMS
				});
			}
			wheel.substitute = { kind: 'generator', hertz: fits ? source.hertz : 0, volts: source.volts, phase: 0 };
			return ok(null);
		}
		case 'mate': {
			const [to, from] = [find(source.position), find(source.from)];
			const wheel = world.wheels[to];
			if (!wheel || from < 0 || from === to)
				return fail('Jumper leads go from the sensor of one wheel to the plug of another.');
			if (!network.open.has(source.position) || !network.open.has(source.from)) {
				return fail('Both plugs have to be open first.');
			}
			wheel.substitute = { kind: 'mate', wheel: from };
			return ok(null);
		}
		default: {
			for (const node of [source.a, source.b]) {
				if (!vehicle.hasNode(node)) return fail(`This vehicle has no point ${node}.`);
			}
			const ohms =
				source.kind === 'resistor' ? source.ohms : source.kind === 'lamp' ? LAMP_OHMS : JUMPER_OHMS;
			if (!(ohms > 0)) return fail('A resistor has more than 0 Ω.');
			network.setClip({ a: source.a, b: source.b, ohms });
			return ok(null);
		}
	}
}
