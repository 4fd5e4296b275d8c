import { likeliestFamilyAt } from '../library/wheelSensors';
import { measurements } from '../library/measure';
import { nodeOf } from '../library/measurePoints';
import type { Position } from '../library';
import { BenchMeter } from '../src/lib/bench/instruments/meter';
import type { BenchVehicle } from '../src/lib/bench/vehicle';
import { judgeMeasurement, quantityOf } from '../src/lib/case/measure/meterJudgement';
import type { MeterReading } from '../src/lib/case/entries/meter-reading/payload';

/** One measurement of the library on a bench vehicle with everything plugged, as a technician would have saved it. */
export function benchReading(
	vehicle: BenchVehicle,
	position: Position,
	id: string,
	mate: number | null,
	knownGood = false
): MeterReading {
	const { type } = vehicle.world;
	const measurement = measurements.find((one) => one.id === id);
	if (!measurement || measurement.open.length > 0) throw new Error(`${id} cannot be taken like this`);
	const meter = new BenchMeter(vehicle);
	const read = (red: string, black: string) => {
		const taken = meter.read({ mode: measurement.mode, red, black });
		if (!taken.ok) throw new Error(taken.error);
		return taken.value.value;
	};
	const value = read(
		nodeOf(type, position, measurement.red) ?? '',
		nodeOf(type, position, measurement.black) ?? ''
	);
	const judgement = judgeMeasurement(measurement, value ?? Infinity, {
		family: likeliestFamilyAt(type, position),
		vehicle: { senseResistorOhms: type.senseResistorOhms, supplyVolts: read('battery', 'body') },
		mate,
		shop: [],
		temperatureC: 20,
		openFeedVolts: null
	});
	if (!judgement) throw new Error(`${id} is not for the sensor at ${position}`);
	const { judged, accuracy, window, hiddenOhms, says, proves, implicates } = judgement;
	const finite = (one: number) => (Number.isFinite(one) ? one : null);
	return {
		position,
		typeId: type.id,
		measurement: id,
		name: measurement.name,
		red: measurement.red.replace(':', ', '),
		black: measurement.black.replace(':', ', '),
		quantity: quantityOf(measurement.mode),
		value,
		judgedValue: finite(judgement.judgedValue),
		temperatureC: null,
		accuracy,
		window: { ...window, high: finite(window.high) },
		judged,
		by: 'instrument',
		opened: [],
		hiddenOhms,
		knownGood,
		says,
		proves,
		implicates
	};
}
