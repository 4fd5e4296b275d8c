import { fail, ok, type Result } from '../../core/result';
import type { ScopeCapture, ScopeRequest } from '../../core/electrical/ports';
import { BODY } from '../physics/wiring';
import type { BenchVehicle } from '../vehicle';
import { busSenders, busVolts, type BusSender } from './busSignal';
import { seenBetween, type Loop } from './loops';
import { drivenBy, fieldTold, shapeOf, type Driven } from './waveform';

const MOST_PROBES = 4;
const MOST_SAMPLES = 20_000_000;
const MOST_RATE_HZ = 5_000_000;
/** A trigger is waited for this many lengths of the capture. */
const TRIGGER_LENGTHS = 5;
const BEFORE_TRIGGER = 0.1;
const USUAL_NOISE_V = 0.003;
/** Pulses that a lead picks up: volts in a passive sensor's loop, and how long they last. */
const PICK_UP_V = 4;
const PICK_UP_S = 150e-6;

/** A number from 0 to 1 that belongs to a whole number. */
function evenOf(k: number): number {
	let state = Math.imul(k ^ 0x9e3779b9, 0x85ebca6b);
	state = Math.imul(state ^ (state >>> 13), 0xc2b2ae35);
	return ((state ^ (state >>> 16)) >>> 0) / 2 ** 32;
}

/** An oscilloscope on the wiring of a bench vehicle. Taking a capture moves the vehicle's clock on by its length. */
export class BenchScope {
	private noiseState = 88_172_645;

	constructor(private readonly vehicle: BenchVehicle) {}

	capture(request: ScopeRequest): Result<ScopeCapture> {
		const { probes, rateHz, durationS, trigger } = request;
		const samples = Math.round(rateHz * durationS);
		if (probes.length < 1 || probes.length > MOST_PROBES) return fail(`One to ${MOST_PROBES} probes.`);
		if (!(rateHz >= 1 && rateHz <= MOST_RATE_HZ)) return fail(`A rate up to ${MOST_RATE_HZ / 1e6} MS/s.`);
		if (!(samples >= 2 && samples * probes.length <= MOST_SAMPLES))
			return fail('Between 2 samples and 20 million in all.');
		for (const { tip, clip = BODY } of probes) {
			for (const node of [tip, clip]) {
				if (!this.vehicle.hasNode(node)) return fail(`This vehicle has no point ${node}.`);
			}
		}
		if (trigger && !probes[trigger.probe]) return fail('The trigger names a probe that is not there.');
		if (!trigger) return ok({ rateHz, channels: this.take(request, samples), triggerAtS: null });
		const before = Math.round(samples * BEFORE_TRIGGER);
		let kept = this.take(request, samples);
		for (let length = 0; length < TRIGGER_LENGTHS; length++) {
			const next = this.take(request, samples);
			const joined = kept.map((channel, i) => join(channel, next[i] ?? channel));
			const at = crossing(joined[trigger.probe] ?? new Float32Array(), before, samples, trigger);
			if (at !== null) {
				const from = at - before;
				return ok({
					rateHz,
					channels: joined.map((channel) => channel.slice(from, from + samples)),
					triggerAtS: before / rateHz
				});
			}
			kept = next;
		}
		return fail('No trigger came.');
	}

	/** Fills the next samples, moving the vehicle step by step under them. */
	private take(
		{ probes, rateHz, noiseVolts = USUAL_NOISE_V }: ScopeRequest,
		samples: number
	): Float32Array[] {
		const channels = probes.map(() => new Float32Array(samples));
		const { vehicle } = this;
		const perStep = rateHz * vehicle.stepS;
		let filled = 0;
		for (let step = 1; filled < samples; step++) {
			const before = vehicle.world.wheels.map((wheel) => wheel.rotor.turns);
			vehicle.advance(vehicle.stepS);
			const until = Math.min(samples, Math.round(step * perStep));
			for (const [i, { tip, clip = BODY }] of probes.entries()) {
				const channel = channels[i];
				if (channel) this.fill(channel, filled, until, tip, clip, before);
			}
			filled = until;
		}
		if (noiseVolts > 0) for (const channel of channels) this.addNoise(channel, noiseVolts);
		return channels;
	}

	private fill(
		channel: Float32Array,
		from: number,
		to: number,
		tip: string,
		clip: string,
		turnsBefore: number[]
	): void {
		const { world, stepS } = this.vehicle;
		const seen = this.seen(tip, clip);
		channel.fill(seen.rest, from, to);
		for (const loop of seen.loops) this.addLoop(channel, from, to, loop, turnsBefore[loop.wheel] ?? 0);
		const startS = world.timeS - stepS;
		for (const senders of seen.buses) {
			for (let i = from; i < to; i++) {
				channel[i] = (channel[i] ?? 0) + busVolts(senders, startS + ((i - from) / (to - from)) * stepS);
			}
		}
	}

	/** What moves the voltage between two nodes, kept with the solution it belongs to. */
	private seen(tip: string, clip: string): { rest: number; loops: Loop[]; buses: BusSender[][] } {
		const { world } = this.vehicle;
		const key = `scope ${tip} ${clip}`;
		const known = world.solution.derived.get(key) as
			{ rest: number; loops: Loop[]; buses: BusSender[][] } | undefined;
		const circuits = world.wheels.map((wheel) => wheel.circuit);
		if (known && known.loops.every(({ wheel, circuit }) => circuits[wheel] === circuit)) return known;
		const seen = {
			...seenBetween(
				world.solution,
				circuits,
				world.wheels.map(({ family }) => family),
				tip,
				clip
			),
			buses: busSenders(world.type, world.solution, tip, clip)
		};
		world.solution.derived.set(key, seen);
		return seen;
	}

	private addLoop(channel: Float32Array, from: number, to: number, loop: Loop, turnsBefore: number): void {
		const { vehicle } = this;
		const { world } = vehicle;
		const wheel = world.wheels[loop.wheel];
		if (!wheel) return;
		const kind = wheel.family;
		const mps = world.motion.wheelMps[loop.wheel] ?? 0;
		const hertz = vehicle.turning.toothHz(loop.wheel);
		const need = vehicle.turning.neededFieldOf(loop.wheel);
		const driven: Driven = {
			kind,
			circuit: loop.circuit,
			shape: shapeOf(kind, wheel.ring, need, mps, world.timeS),
			toothHz: hertz,
			forwards: mps >= 0,
			told: fieldTold(wheel.ring, need, mps, world.timeS)
		};
		const turned = ((mps * vehicle.stepS) / wheel.circumferenceM) * (1 - wheel.ring.creep);
		// What shields a coil from the ring takes from its voltage.
		const scale =
			kind === 'passive'
				? loop.ohms / (vehicle.electrics.coilOhmsOf(loop.wheel) * wheel.sensor.dullness)
				: loop.ohms;
		const each = turned / (to - from);
		const startS = world.timeS - vehicle.stepS;
		if (wheel.sensor.spuriousHz > 0) this.addPickUp(channel, from, to, loop, wheel.sensor.spuriousHz);
		for (let i = from; i < to; i++) {
			const turn = turnsBefore + each * (i - from);
			const timeS = startS + ((i - from) / (to - from)) * vehicle.stepS;
			channel[i] = (channel[i] ?? 0) + drivenBy(driven, turn, timeS) * scale;
		}
	}

	/** What a lead picks up from outside: short pulses at moments of their own, as high as a tooth's. */
	private addPickUp(channel: Float32Array, from: number, to: number, loop: Loop, hertz: number): void {
		const { world, stepS, electrics } = this.vehicle;
		const rateHz = (to - from) / stepS;
		const startS = world.timeS - stepS;
		const volts =
			world.wheels[loop.wheel]?.family === 'passive'
				? (PICK_UP_V * loop.ohms) / electrics.coilOhmsOf(loop.wheel)
				: (loop.circuit.highA - loop.circuit.lowA) * loop.ohms;
		for (let k = Math.floor(startS * hertz) - 1; k <= (startS + stepS) * hertz; k++) {
			const atS = (k + evenOf(k)) / hertz - startS;
			const first = Math.max(from, from + Math.round(atS * rateHz));
			const last = Math.min(to, from + Math.round((atS + PICK_UP_S) * rateHz));
			for (let i = first; i < last; i++) channel[i] = (channel[i] ?? 0) + volts;
		}
	}

	/** Noise near enough to normal: the sum of four even ones, of a fast generator of its own. */
	private addNoise(channel: Float32Array, volts: number): void {
		let state = this.noiseState;
		const scale = (volts * Math.sqrt(12 / 4)) / 2 ** 32;
		for (let i = 0; i < channel.length; i++) {
			let sum = 0;
			for (let k = 0; k < 4; k++) {
				state ^= state << 13;
				state ^= state >>> 17;
				state ^= state << 5;
				sum += state;
			}
			channel[i] = (channel[i] ?? 0) + sum * scale;
		}
		this.noiseState = state;
	}
}

function join(a: Float32Array, b: Float32Array): Float32Array {
	const both = new Float32Array(a.length + b.length);
	both.set(a);
	both.set(b, a.length);
	return both;
}

/** First sample from a place on, and before another, at which a channel crosses the trigger's level; null = none. */
function crossing(
	channel: Float32Array,
	from: number,
	length: number,
	{ volts, slope }: NonNullable<ScopeRequest['trigger']>
): number | null {
	for (let i = from; i < from + length; i++) {
		const [a, b] = [channel[i - 1] ?? 0, channel[i] ?? 0];
		if (slope === 'rising' ? a < volts && b >= volts : a > volts && b <= volts) return i;
	}
	return null;
}
