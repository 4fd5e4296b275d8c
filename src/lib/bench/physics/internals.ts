import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import type { ModuleType, VehicleType } from '../../../../library';
import type { Resistor } from '../../core/electrical/nodalAnalysis';
import { NO_SCATTER, type Scatter } from './scatter';
import { OPEN_OHMS, pinFor } from './wiring';

/** Volts at a module's own supply and ground pins, and whether its electronics work with them. */
export interface Rails {
	supply: number;
	ground: number;
	works: boolean;
}

/** The fixed nodes inside a module that its inputs and outputs hang on. */
export const railNode = (role: string, rail: 'supply' | 'ground' | 'five' | 'eight' | 'mid') =>
	`${role}~${rail}`;

/** A module's regulators need this much above their output; below it they follow the supply. */
const REGULATOR_DROP_V = 0.6;
/** Drop over the high-side switch that feeds the sensors. */
const FEED_SWITCH_DROP_V = 0.3;

/** Volts of a module's inner nodes from the volts at its pins. All sit at its ground when it is off. */
export function innerVolts({
	supply,
	ground,
	works
}: Rails): Record<'supply' | 'ground' | 'five' | 'eight' | 'mid', number> {
	const across = works ? Math.max(0, supply - ground) : 0;
	const regulated = (volts: number) => ground + Math.min(volts, Math.max(0, across - REGULATOR_DROP_V));
	return {
		ground,
		supply: ground + Math.max(0, across - FEED_SWITCH_DROP_V),
		five: regulated(5),
		eight: regulated(8),
		mid: ground + Math.min(2.5, across / 2)
	};
}

/** Recessive bias of a transceiver's pins. */
const BUS_BIAS_OHMS = 30_000;
/** Source resistance of a sensor feed: the high-side switch and its measuring resistor. */
export const FEED_OHMS = 10;
/** Bias of a passive sensor's two lines, which lets the module see a break at standstill. */
export const PASSIVE_BIAS_OHMS = 10_000;
/** Load of a passive sensor's lines across the module's input. */
const PASSIVE_INPUT_OHMS = 100_000;
/** Pull-up of the line of a three-wire sensor. */
export const PULL_UP_OHMS = 2_200;
const BRAKE_SWITCH_PULL_DOWN_OHMS = 10_000;
const PRESSURE_FEED_OHMS = 5;
const PRESSURE_INPUT_OHMS = 220_000;
/** Output resistance of the pressure sensor. */
export const PRESSURE_SOURCE_OHMS = 200;
/** What an ohmmeter makes of an active sensor that nobody feeds: semiconductor junctions, no value to judge by. */
const ACTIVE_SENSOR_OHMS = 2.7e6;

/** What the electronics of a three-wire sensor draw from their feed, about 5 mA at 8 V. */
const THREE_WIRE_LOAD_OHMS = 1_600;

/** Everything that stands between a module's pins inside its housing. */
export function moduleInternals(
	type: VehicleType,
	module: ModuleType,
	{ insideOhms }: Scatter = NO_SCATTER
): Resistor[] {
	const { role } = module;
	const list: Resistor[] = [];
	const link = (does: string, to: string, ohms: number) => {
		const pin = pinFor(module, does);
		if (pin) list.push({ a: pin, b: to, ohms });
	};
	const across = (does: string, other: string, ohms: number) => {
		const pin = pinFor(module, other);
		if (pin) link(does, pin, ohms);
	};
	for (const line of ['bus-high', 'bus-low', 'second-high', 'second-low']) {
		link(line, railNode(role, 'mid'), BUS_BIAS_OHMS * insideOhms);
	}
	for (const { position } of type.wheels) {
		const [feed, signal] = [`feed ${position}`, `signal ${position}`];
		switch (likeliestFamilyAt(type, position)) {
			case 'passive':
				link(feed, railNode(role, 'five'), PASSIVE_BIAS_OHMS * insideOhms);
				link(signal, railNode(role, 'ground'), PASSIVE_BIAS_OHMS * insideOhms);
				across(feed, signal, PASSIVE_INPUT_OHMS * insideOhms);
				break;
			case 'two-wire':
			case 'two-wire-direction':
			case 'two-wire-pulse-width':
				link(feed, railNode(role, 'supply'), FEED_OHMS);
				link(signal, railNode(role, 'ground'), type.senseResistorOhms);
				break;
			case 'three-wire':
				link(feed, railNode(role, 'eight'), FEED_OHMS);
				link(signal, railNode(role, 'eight'), PULL_UP_OHMS * insideOhms);
				link(`reference ${position}`, railNode(role, 'ground'), 0.05);
				break;
		}
	}
	link('brake-switch', railNode(role, 'ground'), BRAKE_SWITCH_PULL_DOWN_OHMS * insideOhms);
	link('pressure-feed', railNode(role, 'five'), PRESSURE_FEED_OHMS);
	link('pressure-signal', railNode(role, 'ground'), PRESSURE_INPUT_OHMS * insideOhms);
	link('pressure-ground', railNode(role, 'ground'), 0.05);
	return list;
}

/** What stands between the pins of the sensors and switches. @param coilOhms of a passive sensor, by position */
export function deviceInternals(
	type: VehicleType,
	coilOhms: (wheel: number) => number,
	pedalPressed: boolean
): Resistor[] {
	const list: Resistor[] = type.wheels.map(({ position }, i) => ({
		a: `${position}.1`,
		b: `${position}.2`,
		ohms: likeliestFamilyAt(type, position) === 'passive' ? coilOhms(i) : ACTIVE_SENSOR_OHMS
	}));
	for (const { position } of type.wheels)
		if (likeliestFamilyAt(type, position) === 'three-wire')
			list.push({ a: `${position}.1`, b: `${position}.3`, ohms: THREE_WIRE_LOAD_OHMS });
	if (type.modules.some((module) => pinFor(module, 'brake-switch'))) {
		list.push({ a: 'brake-switch.1', b: 'brake-switch.2', ohms: pedalPressed ? 0.05 : OPEN_OHMS });
	}
	list.push(
		{ a: 'pressure.1', b: 'pressure.3', ohms: 1_000 },
		{ a: 'pressure.2', b: 'pressure.3', ohms: PRESSURE_SOURCE_OHMS }
	);
	return list;
}
