export const SENSOR_KINDS = ['passive', 'two-wire', 'two-wire-direction', 'three-wire'] as const;
export type SensorKind = (typeof SENSOR_KINDS)[number];
