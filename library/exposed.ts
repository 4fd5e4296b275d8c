import type { Position } from './positions';
import type { ModuleType, VehicleType } from './vehicles';

/** What a vehicle exposes at a place, whatever is done there. */

const isMakersAlone = ({ work }: ModuleType) => work === 'maker-procedure-only';

/**
 * The module whose maker alone says how it is worked on, where a place is that module, or wiring of nobody else but such
 * modules. Null for any other place.
 */
export function makersAlone(type: VehicleType, place: string): ModuleType | null {
	const own = type.modules.find(({ role }) => role === place);
	if (own) return isMakersAlone(own) ? own : null;
	const hanging = hangingOn(type, place);
	return hanging.length > 0 && hanging.every(isMakersAlone) ? (hanging[0] ?? null) : null;
}

/** Modules that hang on a fuse, ground point or splice. */
const hangingOn = ({ modules }: VehicleType, place: string): ModuleType[] =>
	modules.filter(({ suppliedBy }) =>
		suppliedBy.some(({ name, kind }) => kind !== 'segment' && name === place)
	);

/** What several modules may hang on. */
const SHARED = ['fuses', 'grounds', 'splices'];

/** What a place exposes, whatever is done at it. */
export function exposedAt(type: VehicleType, place: string): string[] {
	if (makersAlone(type, place)) return ['maker-only', 'restraint-near'];
	const module = type.modules.find(({ role }) => role === place);
	if (module?.near.includes('steering-wheel-airbag')) return ['restraint-behind-wheel'];
	// What feeds the restraint module too is near its circuits; so may be what nobody has looked up.
	const looked = !SHARED.some((list) => type.assumed.includes(`harness.${list}.${place}`));
	const near = hangingOn(type, place).some(isMakersAlone) || (!looked && type.modules.some(isMakersAlone));
	return near ? ['restraint-near'] : [];
}

/** What the vehicle exposes at every station. That a danger is usually not there does not take its caution away. */
export function exposedByVehicle({
	highVoltage,
	brakes,
	assumed
}: Pick<VehicleType, 'highVoltage' | 'brakes' | 'assumed'>): string[] {
	const known = (path: string, id: string, is: boolean): string[] =>
		assumed.includes(path) ? [`${id}-unknown`] : is ? [id] : [];
	return [
		...known('highVoltage', 'high-voltage', highVoltage),
		...known('brakes', 'air-brakes', brakes === 'air')
	];
}

/** Whether a motor clamps the brake of this wheel. */
export function motorBrakeAt(
	{ parkingBrake, wheels, assumed }: Pick<VehicleType, 'parkingBrake' | 'wheels' | 'assumed'>,
	position: string
): 'yes' | 'no' | 'not-known' {
	const wheel = wheels.find((one) => one.position === (position as Position));
	if (!wheel || !parkingBrake.axles.includes(wheel.axle)) return 'no';
	if (assumed.includes('parkingBrake')) return 'not-known';
	return parkingBrake.by === 'motor' ? 'yes' : 'no';
}
