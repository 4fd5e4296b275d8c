export const SENSOR_KINDS = [
	'passive',
	'two-wire',
	'two-wire-direction',
	'two-wire-pulse-width',
	'three-wire'
] as const;
export type SensorKind = (typeof SENSOR_KINDS)[number];

/** Fed by the module, speaking by what they draw. */
export const drawsCurrent = (kind: WheelSensor | null): boolean =>
	kind === 'two-wire' || kind === 'two-wire-direction' || kind === 'two-wire-pulse-width';

/** Tells more than its teeth, in pulses too short for a slow instrument. */
export const speaksInPulses = (kind: WheelSensor | null): boolean =>
	kind === 'two-wire-direction' || kind === 'two-wire-pulse-width';

/** What a wheel's sensor is, as far as it is known. */
export const WHEEL_SENSORS = [...SENSOR_KINDS, 'unknown'] as const;
export type WheelSensor = (typeof WHEEL_SENSORS)[number];
