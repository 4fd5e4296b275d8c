import type { Link } from '../../../../library/links';

/** Links as they are called over the columns of the proof grid. */
export const LINK_WORDS: Record<Link, string> = {
	tyre: 'tyre',
	ring: 'ring',
	gap: 'gap',
	sensor: 'sensor',
	'sensor-connector': 'plug',
	harness: 'lead',
	'module-connector': 'far plug',
	'module-input': 'module in',
	'module-supply': 'supply',
	bus: 'bus',
	configuration: 'coding',
	calibration: 'calibration'
};
