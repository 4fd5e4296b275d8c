export const SENSOR_KINDS = ['passive', 'two-wire', 'two-wire-direction', 'three-wire'] as const;
export type SensorKind = (typeof SENSOR_KINDS)[number];

/** What a wheel's sensor is, as far as it is known. */
export const WHEEL_SENSORS = [...SENSOR_KINDS, 'unknown'] as const;
export type WheelSensor = (typeof WHEEL_SENSORS)[number];
