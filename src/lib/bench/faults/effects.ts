import type { ModuleRole, VehicleType } from '../../../../library';
import { mateOf, type Position } from '../../../../library/positions';
import { thingOf } from '../../../../library/harness';
import type { Effect, Part } from '../../../../library/faults';
import { numberOf, rawValue } from '../modules/identity';
import type { Module } from '../modules/module';
import type { VehicleNetwork } from '../physics/network';
import { NO_SCATTER, type Scatter } from '../physics/scatter';
import { cover, crack, dropTooth, soundRing } from '../physics/ring';
import { soundSensor } from '../physics/wheelCircuit';
import { BATTERY, BODY, pinFor, terminatorName } from '../physics/wiring';
import { soundSense, type Sense, type SenseName, type Wheel } from '../world';
import { faultOf, type BenchFault } from './benchFault';

/** Everything a fault can act on. */
export interface Target {
	type: VehicleType;
	wheels: readonly Wheel[];
	network: VehicleNetwork;
	senses: Record<SenseName, Sense>;
	module: (role: string) => Module | undefined;
	internal: Set<ModuleRole>;
	dead: Set<ModuleRole>;
	frozen: Set<ModuleRole>;
	frameLoss: number;
	batteryVolts: number;
	readonly scatter: Scatter;
}

export const BATTERY_VOLTS = 12.5;

/** Value of a range at a severity: by even ratio where both ends are above zero, by even steps otherwise. */
export function atSeverity([from, to]: readonly [number, number], severity: number): number {
	return from > 0 && to > 0 ? from * (to / from) ** severity : from + (to - from) * severity;
}

/** Puts everything back to sound, then lets the faults that show act on it. */
export function applyFaults(target: Target, active: readonly BenchFault[]): void {
	target.network.clearFaults();
	for (const wheel of target.wheels) {
		wheel.ring = soundRing(wheel.type.ringTeeth, wheel.type.gapMm, target.scatter);
		wheel.sensor = soundSensor(target.scatter);
		wheel.circumferenceM = wheel.type.circumferenceM;
		wheel.gripShare = 1;
	}
	for (const name of Object.keys(target.senses) as SenseName[]) target.senses[name] = soundSense();
	target.internal.clear();
	target.dead.clear();
	target.frozen.clear();
	target.frameLoss = 0;
	target.batteryVolts = BATTERY_VOLTS;
	for (const [i, fault] of active.entries()) {
		for (const [j, effect] of faultOf(fault).effects.entries()) {
			applyEffect(target, fault, effect, `${i}.${j}`);
		}
	}
}

/** Effects that change what a module keeps, or a fuse, happen once: when the fault is put in. */
export function applyOnce(target: Target, fault: BenchFault): void {
	for (const effect of faultOf(fault).effects) {
		if (effect.do === 'blow') target.network.setFuse(fault.at, false);
		if (effect.do === 'keep') change(target.module(fault.at), effect, fault.severity);
	}
}

function change(module: Module | undefined, effect: Effect & { do: 'keep' }, severity: number): void {
	if (!module) return;
	const { nonVolatile } = module;
	if (effect.id === '*') return nonVolatile.erase();
	if (effect.what === 'erase') nonVolatile.write(effect.id, null);
	else if (effect.what === 'garble') nonVolatile.write(effect.id, rawValue(effect.id, 'other'));
	else {
		const now = numberOf(effect.id, nonVolatile.read(effect.id)) ?? 0;
		nonVolatile.write(effect.id, rawValue(effect.id, now * atSeverity(effect.amount, severity)));
	}
}

function applyEffect(target: Target, { at, severity }: BenchFault, effect: Effect, name: string): void {
	const { network, type, scatter } = target;
	const ohmsOf = ({ ohms }: { ohms: readonly [number, number] }) =>
		atSeverity(ohms, severity) * scatter.faultOhms;
	const wheel = target.wheels.find(({ position }) => position === at);
	const module = type.modules.find(({ role }) => role === at);
	switch (effect.do) {
		case 'ring':
			if (wheel) breakRing(wheel, effect, severity, scatter);
			return;
		case 'sensor':
			if (wheel) breakSensor(wheel, effect, severity);
			return;
		case 'tyre': {
			const same =
				effect.of === 'axle' ? target.wheels.filter((w) => w.type.axle === wheel?.type.axle) : [wheel];
			for (const one of same) if (one) one.circumferenceM *= atSeverity(effect.scale, severity);
			return;
		}
		case 'grip':
			if (wheel) wheel.gripShare = atSeverity(effect.share, severity);
			return;
		case 'series': {
			const mate = effect.of === 'axle' ? mateOf(at as Position) : null;
			for (const wheelAt of mate ? [at, mate] : [at]) {
				const { element } = partOf(type, wheelAt, effect.part);
				if (element) network.setOhms(element, ohmsOf(effect));
			}
			return;
		}
		case 'short': {
			const { node, mate } = partOf(type, at, effect.part);
			const to = { ground: BODY, supply: BATTERY, mate }[effect.to];
			if (node && to) network.setExtra(name, { a: node, b: to, ohms: ohmsOf(effect) });
			return;
		}
		case 'pin': {
			const pin = module && pinFor(module, effect.pin);
			if (pin) network.setOhms(pin, ohmsOf(effect));
			return;
		}
		case 'bus-short': {
			const from = module && pinFor(module, effect.from);
			const other = module && pinFor(module, effect.to);
			const to = effect.to === 'ground' ? BODY : effect.to === 'supply' ? BATTERY : other && `${other}:w`;
			if (from && to) network.setExtra(name, { a: `${from}:w`, b: to, ohms: ohmsOf(effect) });
			return;
		}
		case 'terminator':
			for (const { segment, at: ends } of type.harness.terminators) {
				if (module && ends.includes(at) && (module.segment === segment || at === 'gateway')) {
					network.setOhms(terminatorName(at, segment), 1e9);
					return;
				}
			}
			return;
		case 'element':
			network.setOhms(at, ohmsOf(effect));
			return;
		case 'plug-cavities':
			for (const cavity of wheelCavities(type, at)) network.setOhms(cavity, ohmsOf(effect));
			return;
		case 'joint': {
			// The joint through which the splice is fed.
			const wire = type.harness.conductors.find((one) => one.points.at(-1)?.split('.')[0] === at);
			if (wire) network.setOhms(`${wire.points.at(-1)}@${wire.id}`, ohmsOf(effect));
			return;
		}
		case 'frame-loss':
			target.frameLoss = Math.max(target.frameLoss, atSeverity(effect.share, severity));
			return;
		case 'frozen':
			if (module) target.frozen.add(module.role);
			return;
		case 'internal':
			if (module) target.internal.add(module.role);
			return;
		case 'dead':
			if (module) target.dead.add(module.role);
			return;
		case 'battery':
			target.batteryVolts = atSeverity(effect.volts, severity);
			return;
		case 'sense': {
			const sense = target.senses[effect.sense];
			const amount = atSeverity(effect.amount, severity);
			if (effect.what === 'offset') sense.offset = amount;
			else sense.stuckAt = amount;
			return;
		}
		case 'blow':
		case 'keep':
			return;
	}
}

/** Cavities of a plug at which signal wires of wheels go through. */
const wheelCavities = ({ harness, wheels }: VehicleType, plug: string): string[] =>
	wheels.flatMap(({ position }) =>
		harness.conductors
			.filter(({ points }) => points.includes(`${position}.2`))
			.flatMap(({ points }) => points.filter((point) => thingOf(point) === plug))
	);

function breakRing(
	wheel: Wheel,
	{ what, amount }: Effect & { do: 'ring' },
	severity: number,
	{ amplitude }: Scatter
): void {
	const value = atSeverity(amount, severity);
	const { ring } = wheel;
	switch (what) {
		case 'drop-teeth':
			for (let i = 0; i < Math.round(value); i++) dropTooth(ring, 7 + i);
			return;
		case 'crack':
			return crack(ring, 11, value);
		case 'run-out':
			ring.runOutMm += value;
			ring.uniform = false;
			return;
		case 'wobble':
			ring.wobbleMmAt100 += value;
			return;
		case 'creep':
			ring.creep = value;
			return;
		case 'gap':
			ring.gapMm += value;
			return;
		case 'teeth':
			wheel.ring = soundRing(wheel.type.ringTeeth + Math.round(value), ring.gapMm, {
				...NO_SCATTER,
				amplitude
			});
			return;
		case 'cover':
			return cover(ring, 0.2, value, 0.05);
		case 'weaken':
			for (const [i, strength] of ring.strength.entries()) ring.strength[i] = strength * value;
			return;
	}
}

function breakSensor({ sensor }: Wheel, { what, amount }: Effect & { do: 'sensor' }, severity: number): void {
	const value = atSeverity(amount, severity);
	switch (what) {
		case 'dead':
			sensor.works = false;
			return;
		case 'dull':
			sensor.dullness *= value;
			return;
		case 'coil':
			sensor.coilOhms20C = value;
			return;
		case 'stuck-low':
			sensor.stuckAt = 'low';
			return;
		case 'stuck-high':
			sensor.stuckAt = 'high';
			return;
		case 'spurious':
			sensor.spuriousHz += value;
			return;
	}
}

/** A place of a corner's circuit: the element there, the node on the wire's side, and the mate wire's node. */
function partOf(
	type: VehicleType,
	position: string,
	part: Part
): { element: string | null; node: string | null; mate: string | null } {
	const pin = part.slice(-1);
	const sensorPin = `${position}.${pin}`;
	const wire = type.harness.conductors.find((one) => one.points.includes(sensorPin));
	if (!wire) return { element: null, node: null, mate: null };
	const modulePin = wire.points[0] ?? '';
	const isPlug = (point: string) => type.harness.plugs.some(({ name }) => name === point.split('.')[0]);
	const plugs = wire.points.filter(isPlug);
	const middle = plugs[plugs.length >> 1] ?? sensorPin;
	const mate = `${position}.${pin === '1' ? '2' : '1'}:w`;
	switch (part) {
		case 'sensor-pin-1':
		case 'sensor-pin-2':
			return { element: sensorPin, node: `${sensorPin}:w`, mate };
		case 'wire-1':
		case 'wire-2':
			return { element: `${wire.id}#${wire.points.length - 2}`, node: `${sensorPin}:w`, mate };
		case 'plug-1':
		case 'plug-2':
			return { element: middle, node: isPlug(middle) ? `${middle}:a` : `${middle}:w`, mate };
		default:
			return { element: modulePin, node: `${modulePin}:w`, mate };
	}
}
