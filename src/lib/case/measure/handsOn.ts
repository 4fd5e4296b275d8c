import type { PathPlace } from '../../../../library/measurePoints';
import type { TouchedPlace } from '../entries/live-recording/payload';

/** What a hand does on the way of a wheel's signal to make a fault show, each a button. */
export type HandsOn = TouchedPlace & Required<Pick<TouchedPlace, 'does'>>;

/** Where nobody has told of the wiring: what every wheel has. */
const USUAL: HandsOn[] = [
	{ label: 'module plug', is: 'module-plug', does: 'move' },
	{ label: 'lead', is: 'lead', does: 'move' },
	{ label: 'sensor plug', is: 'sensor-plug', does: 'move' },
	{ label: 'sensor', is: 'sensor', does: 'move' }
];
const WATER: HandsOn = { label: 'water', does: 'wet' };
const HOT_AIR: HandsOn = { label: 'hot air', does: 'warm' };
const STEERING: HandsOn = { label: 'steering', does: 'lock' };
export const TURNS_STILL: HandsOn = { label: 'it still turns', does: 'turns-still' };
export const HANDS_OFF: HandsOn = { label: 'hands off', does: 'hands-off' };

/** @param path of its signal wire, from the module to the wheel */
export function handsOn(path: readonly PathPlace[], steered: boolean): HandsOn[] {
	const plugs = new Set(path.filter(({ at }) => at === 'plug').map(({ behind }) => behind));
	const between = [...plugs].map((name): HandsOn => ({ label: `plug ${name}`, is: 'lead', does: 'move' }));
	const [first, ...rest] = USUAL;
	return [...(first ? [first] : []), ...between, ...rest, WATER, HOT_AIR, ...(steered ? [STEERING] : [])];
}
