import type { Fault } from './faults';

/** The systems of a chassis that faults are told by. */
export const SYSTEMS = [
	'wheel-speed',
	'supply',
	'network',
	'tyres',
	'steering-angle',
	'yaw',
	'brake-pressure',
	'brake-light-switch',
	'modules'
] as const;
export type System = (typeof SYSTEMS)[number];

/** System of what a module of this role is taught, coded or senses by itself. */
const BY_ROLE: Record<string, System> = {
	'steering-angle': 'steering-angle',
	'power-steering': 'steering-angle',
	yaw: 'yaw'
};

/** The system that a fault belongs to: by what it acts on, then by its link and the only module that can have it. */
export function systemOf({ at, link, effects, only }: Fault): System {
	if (effects.some((effect) => 'pin' in effect && effect.pin.startsWith('brake-switch')))
		return 'brake-light-switch';
	if (effects.some((effect) => effect.do === 'bus-short' && effect.from.startsWith('brake-switch')))
		return 'brake-light-switch';
	if (effects.some(isOfPressure)) return 'brake-pressure';
	if (link === 'bus') return 'network';
	if (link === 'tyre') return 'tyres';
	if (link === 'module-supply') return effects.some(({ do: done }) => done === 'dead') ? 'modules' : 'supply';
	if (at === 'corner') return 'wheel-speed';
	const [role] = only ?? [];
	return (only?.length === 1 && role !== undefined && BY_ROLE[role]) || 'modules';
}

const isOfPressure = (effect: Fault['effects'][number]): boolean =>
	(effect.do === 'sense' && effect.sense === 'pressure') ||
	(effect.do === 'pin' && effect.pin.startsWith('pressure')) ||
	(effect.do === 'keep' && effect.id === PRESSURE_ZERO);

/** Where the zero point of the pressure sensor is kept. */
const PRESSURE_ZERO = 'D163';
