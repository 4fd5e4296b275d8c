/** The links of a signal path that a fault can sit in. */
export const LINKS = [
	'ring',
	'gap',
	'sensor',
	'sensor-connector',
	'harness',
	'module-connector',
	'module-input',
	'module-supply',
	'bus',
	'tyre',
	'configuration',
	'calibration'
] as const;
export type Link = (typeof LINKS)[number];
