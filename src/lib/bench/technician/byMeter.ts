import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { Position } from '../../../../library';
import { measurements, type Measurement } from '../../../../library/measure';
import { nodeOf, pinNode, wheelReaderOf } from '../../../../library/measurePoints';
import { coilResistanceAt20C } from '../../core/electrical/coilResistance';
import { ruledWindow } from '../../core/electrical/expectedWindow';
import { judgeReading, meterAccuracy, type Judgement } from '../../core/electrical/judgeReading';
import { BenchMeter } from '../instruments/meter';
import type { BenchVehicle } from '../vehicle';

export interface Measured {
	value: number;
	judged: Judgement;
	/** Which side of its window; a reading on the edge counts as in. */
	side: 'in' | 'low' | 'high';
}

const TURNED_KMH = 10;

/**
 * Takes one measurement of the library by hand, as it says: key, plugs, wheel, leads.
 *
 * @param place a wheel, or for a measurement at a module its role
 */
export function measureByHand(vehicle: BenchVehicle, place: string, one: Measurement): Measured {
	const { type } = vehicle.world;
	const corner = one.about === 'corner';
	const position = (corner ? place : type.wheels[0]?.position) as Position;
	const reader = corner ? (wheelReaderOf(type)?.role ?? '') : place;
	const plugs = one.open.map((plug) => (plug === 'sensor' ? position : reader));
	const meter = new BenchMeter(vehicle);
	const module = type.modules.find(({ role }) => role === reader);
	const node = (point: Measurement['red']) =>
		(!corner && module ? pinNode(module, point) : null) ?? nodeOf(type, position, point) ?? '';
	vehicle.turnKey('off');
	for (const plug of plugs) vehicle.plug(plug, false);
	vehicle.turnKey(one.key);
	vehicle.advance(1);
	if (one.wheel === 'turns') {
		vehicle.spin(position, TURNED_KMH);
		vehicle.advance(2);
	}
	// The supply of the same moment: an engine that ran before had charged it.
	const supply = meter.read({ mode: 'volts-dc', red: 'battery', black: 'body' });
	const read = meter.read({ mode: one.mode, red: node(one.red), black: node(one.black) });
	if (!read.ok) throw new Error(`${one.id}: ${read.error}`);
	vehicle.spin(position, 0);
	for (const plug of plugs) vehicle.plug(plug, true);
	vehicle.turnKey('on');
	vehicle.advance(1);
	const shown = read.value.value ?? Infinity;
	const value = one.atTemperature ? coilResistanceAt20C(shown, vehicle.world.motion.hubC) : shown;
	const family = likeliestFamilyAt(type, position);
	const rule = one.windows[family];
	if (!rule) throw new Error(`${one.id} has no window for ${family}`);
	const window = ruledWindow(rule, {
		senseResistorOhms: type.senseResistorOhms,
		supplyVolts: supply.ok ? supply.value.value : null
	});
	const judged = judgeReading(value, window, meterAccuracy(one.mode === 'ohms' ? 'Ω' : 'V', value));
	return { value, judged, side: judged !== 'out' ? 'in' : value < window.low ? 'low' : 'high' };
}

/** One measurement of the library. Throws for one that it does not have. */
export function measurementOf(id: string): Measurement {
	const found = measurements.find((one) => one.id === id);
	if (!found) throw new RangeError(`"${id}" is no measurement of the library`);
	return found;
}
