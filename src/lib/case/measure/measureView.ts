import { assumedAccess } from '../../../../library/vehicle/known';
import { mateOf } from '../../../../library/positions';
import { measurements, warnedOf, type Measurement } from '../../../../library/measure';
import { LINKS, type Link } from '../../../../library/links';
import {
	hasPointsFor,
	nodeOf,
	untoldPinAt,
	SENSOR_ACCESS_MIN,
	wheelReaderOf
} from '../../../../library/measurePoints';
import type { Position } from '../../../../library/positions';
import type { SensorKind } from '../../../../library/sensorKinds';
import type { VehicleType } from '../../../../library/vehicles';
import { exposedAt, linksAt } from './measured';
import type { Entry, EntryOf } from '../entries/entry';
import { ofKind } from '../thread/thread';

/** Where the leads go, in the words of the bay. */
const POINT_WORDS: Record<Measurement['red'], string> = {
	'sensor:feed': 'sensor, feed pin',
	'sensor:signal': 'sensor, signal pin',
	'wire:feed': 'feed wire at the sensor’s plug',
	'wire:signal': 'signal wire at the sensor’s plug',
	'module:feed': 'feed pin at the module',
	'module:signal': 'signal pin at the module',
	'module-wire:feed': 'feed wire at the module’s plug',
	'module-wire:signal': 'signal wire at the module’s plug',
	'reader:supply': 'supply pin of the module',
	'reader:ground': 'ground pin of the module',
	'bus:high': 'upper bus line',
	'bus:low': 'lower bus line',
	battery: 'battery plus',
	body: 'bare metal of the body'
};

export interface OfferedMeasurement {
	measurement: Measurement;
	red: string;
	black: string;
	/** Where the leads go by the vehicle's diagrams; null where they are not known. */
	redNode: string | null;
	/** Where in the description it stands which pin the red lead goes to, while nobody has told. */
	redUntold: string | null;
	blackNode: string | null;
	/** Minutes for it now: access that is not yet paid, and the reading. */
	minutes: number;
	/** Where in the description of the vehicle the way to its plug stands, where that is only assumed. */
	assumed: string | null;
	/** Links that it would prove and that are not proven. */
	wouldProve: Link[];
	/** The latest reading here, and the mate's. */
	reading: EntryOf<'meter-reading'> | null;
	mateReading: EntryOf<'meter-reading'> | null;
}

/** Minutes to reach the module's plug where nobody has described the vehicle. */
const USUAL_MODULE_MIN = 20;

const needsModule = ({ red, black, open }: Measurement) =>
	open.includes('module') || [red, black].some((point) => /^(module|reader|bus)/.test(point));
const needsSensor = ({ red, black, open }: Measurement) =>
	open.includes('sensor') || [red, black].some((point) => /^(sensor|wire)/.test(point));

/**
 * Measurements for a wheel and its family, the most telling for its minutes first: links newly proven, and half of what a
 * bad reading would point at, a minute.
 */
export function offeredMeasurements(
	entries: Entry[],
	type: VehicleType | null,
	position: Position,
	family: SensorKind
): OfferedMeasurement[] {
	const states = linksAt(entries, position);
	const open = exposedAt(entries, position);
	const reader = type && wheelReaderOf(type);
	const readings = ofKind(entries, 'meter-reading');
	const lastOf = (at: Position, id: string) =>
		readings.filter(({ payload }) => payload.position === at && payload.measurement === id).at(-1) ?? null;
	const score = ({ wouldProve, measurement, minutes, reading }: OfferedMeasurement) => {
		const points = measurement.bad.implicates.filter((link) => states[link] !== 'good').length;
		const fresh = reading ? 0 : 1;
		return (fresh * (wouldProve.length + points / 2 + 0.1)) / minutes;
	};
	return measurements
		.filter((one) => one.families.includes(family) && (!type || hasPointsFor(type, one)))
		.map((measurement): OfferedMeasurement => {
			const module = needsModule(measurement) && !open.has(reader?.role ?? 'module');
			const sensor = needsSensor(measurement) && !open.has(position);
			return {
				measurement,
				red: POINT_WORDS[measurement.red],
				black: POINT_WORDS[measurement.black],
				redUntold: type && untoldPinAt(type, position, measurement.red),
				redNode: type && nodeOf(type, position, measurement.red),
				blackNode: type && nodeOf(type, position, measurement.black),
				minutes:
					measurement.minutes +
					(module ? (reader?.accessMin ?? USUAL_MODULE_MIN) : 0) +
					(sensor ? SENSOR_ACCESS_MIN : 0),
				assumed: module && type && reader ? assumedAccess(type, { module: reader.role }) : null,
				wouldProve: measurement.good.proves.filter((link) => states[link] !== 'good'),
				reading: lastOf(position, measurement.id),
				mateReading: lastOf(mateOf(position), measurement.id)
			};
		})
		.sort((a, b) => score(b) - score(a) || a.minutes - b.minutes);
}

/** Tests that must not be done on this family, and why. */
export function unsuitedMeasurements(
	family: SensorKind
): { name: string; can: 'mislead' | 'harm'; why: string }[] {
	return measurements.flatMap((one) => {
		const told = warnedOf(one, family);
		return told ? [{ name: one.name, ...told }] : [];
	});
}

/** The chain of a wheel's path, from the road to the module. */
const CHAIN: { link: Link; word: string }[] = [
	{ link: 'ring', word: 'ring' },
	{ link: 'gap', word: 'gap' },
	{ link: 'sensor', word: 'sensor' },
	{ link: 'sensor-connector', word: 'its plug' },
	{ link: 'harness', word: 'harness' },
	{ link: 'module-connector', word: 'module plug' },
	{ link: 'module-input', word: 'input' },
	{ link: 'module-supply', word: 'its supply' }
];

export function cornerChain(entries: readonly Entry[], position: Position) {
	const states = linksAt(entries, position);
	return CHAIN.filter(({ link }) => LINKS.includes(link)).map(({ link, word }) => ({
		link,
		word,
		state: states[link]
	}));
}
