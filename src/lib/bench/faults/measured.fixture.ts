import type { Position, SensorKind } from '../../../../library';
import { measurements, type Measurement } from '../../../../library/measure';
import { nodeOf, wheelReaderOf } from '../../../../library/measurePoints';
import { coilResistanceAt20C } from '../../core/electrical/coilResistance';
import { ruledWindow } from '../../core/electrical/expectedWindow';
import { judgeReading, meterAccuracy, type Judgement } from '../../core/electrical/judgeReading';
import { BenchMeter } from '../instruments/meter';
import type { BenchVehicle } from '../vehicle';

export interface Measured {
	value: number;
	judged: Judgement;
}

/** Takes one measurement of the library by hand, as it says: key, plugs, wheel, leads. */
export function measure(vehicle: BenchVehicle, position: Position, one: Measurement): Measured {
	const { type } = vehicle.world;
	const reader = wheelReaderOf(type)?.role ?? '';
	const plugs = one.open.map((plug) => (plug === 'sensor' ? position : reader));
	const meter = new BenchMeter(vehicle);
	const node = (point: Measurement['red']) => nodeOf(type, position, point) ?? '';
	const supply = meter.read({ mode: 'volts-dc', red: 'battery', black: 'body' });
	vehicle.turnKey('off');
	for (const plug of plugs) vehicle.plug(plug, false);
	vehicle.turnKey(one.key);
	vehicle.advance(1);
	if (one.wheel === 'turns') {
		vehicle.spin(position, 10);
		vehicle.advance(2);
	}
	const read = meter.read({ mode: one.mode, red: node(one.red), black: node(one.black) });
	if (!read.ok) throw new Error(`${one.id}: ${read.error}`);
	vehicle.spin(position, 0);
	for (const plug of plugs) vehicle.plug(plug, true);
	vehicle.turnKey('on');
	vehicle.advance(1);
	const shown = read.value.value ?? Infinity;
	const value = one.atTemperature ? coilResistanceAt20C(shown, vehicle.world.motion.hubC) : shown;
	const rule = one.windows[type.sensor];
	if (!rule) throw new Error(`${one.id} has no window for ${type.sensor}`);
	const window = ruledWindow(rule, {
		senseResistorOhms: type.senseResistorOhms,
		supplyVolts: supply.ok ? supply.value.value : null
	});
	return {
		value,
		judged: judgeReading(value, window, meterAccuracy(one.mode === 'ohms' ? 'Ω' : 'V', value))
	};
}

export const measurementsOf = (family: SensorKind): Measurement[] =>
	measurements.filter(({ families }) => families.includes(family));
