import type { Harness } from '../harness';
import type { Given, Template } from './given';
import { templateOf, USUAL, usualModule, usualWheel } from './templates';
import { usualHarness, usualPins } from './usualHarness';
import type { Described } from './vehicleType';

const USUAL_SENSE_OHMS = 115;
/** What a wheel's position and a module's role say by themselves. */
const FOLLOWS = /^(wheels\.[^.]+\.(axle|side)|modules\.[^.]+\.(work|near))$/;
/** Where a hazard is concerned, only what the kind of vehicle says by itself counts as known. */
export const SAID_BY_KIND: Record<Template, readonly string[]> = {
	car: ['brakes'],
	van: ['brakes'],
	'light-truck': [],
	'four-wheel-drive': ['brakes'],
	electric: ['highVoltage', 'brakes'],
	motorcycle: ['parkingBrake', 'brakes'],
	trailer: ['highVoltage', 'parkingBrake'],
	'lamp-only': ['highVoltage', 'parkingBrake']
};
const DEFAULT_ID = 'described-vehicle';

/**
 * A full description from what is given: all else is filled in as it is usual on its kind of vehicle, and its paths stand under
 * `assumed`. What is given as assumed stays so.
 */
export function completed(given: Given): Described {
	const template = templateOf(given);
	const usual = USUAL[template];
	const assumed = new Set(given.assumed);
	/** What is given, or else what is usual, which is noted. */
	const or = <T>(path: string, value: T | undefined, usually: () => T): T => {
		if (value !== undefined) return value;
		assumed.add(path);
		return usually();
	};
	/** Of what follows from the kind of vehicle by itself, nothing is assumed. */
	const said: typeof or = (path, value, usually) =>
		value === undefined && SAID_BY_KIND[template].includes(path) ? usually() : or(path, value, usually);
	/** Each property of a thing, given or usual. */
	const filled = <T extends object>(path: string, some: Partial<T> | undefined, usually: T): T => {
		const all = { ...usually };
		for (const key of Object.keys(usually) as (keyof T & string)[])
			all[key] = or<T[typeof key]>(`${path}.${key}`, some?.[key], () => usually[key]);
		return all;
	};
	const tells = or('tells', given.tells, () => (template === 'lamp-only' ? 'lamp' : 'link'));
	const chassis = filled<Described['chassis']>('chassis', given.chassis, {
		wheelbaseM: usual.wheelbaseM,
		trackM: usual.trackM,
		steeringRatio: usual.steeringRatio,
		drive: usual.drive
	});
	// What a sensor is stays unknown where nobody says it.
	const sensor = given.sensor ?? 'unknown';
	const wheels = given.wheels.map((wheel) => ({
		...filled<Described['wheels'][number]>(
			`wheels.${wheel.position}`,
			wheel,
			usualWheel(wheel.position, { template, drive: chassis.drive })
		),
		...(wheel.sensor === undefined ? {} : { sensor: wheel.sensor })
	}));
	const axles = new Set(wheels.map(({ axle }) => axle));
	const parkingBrake = said('parkingBrake', given.parkingBrake, () => ({
		by: usual.parkingBrake,
		axles: template === 'trailer' ? [...axles] : [Math.max(...axles)]
	}));
	const listed = or('modules', given.modules, (): NonNullable<Given['modules']> =>
		usual.modules.map((role) => ({ role }))
	);
	const withoutPins = listed.map(({ pins: _, role, can, doip, ...module }) => ({
		role,
		...filled(`modules.${role}`, module, usualModule(role, template)),
		...(can === undefined ? {} : { can }),
		...(doip === undefined ? {} : { doip })
	}));
	const withSensors = wheels.map((wheel) => ({ ...wheel, sensor: wheel.sensor ?? sensor }));
	const modules = withoutPins.map((module, i) => ({
		...module,
		pins: or(`modules.${module.role}.pins`, listed[i]?.pins, () =>
			usualPins(module.role, { modules: withoutPins, wheels: withSensors, tells })
		)
	}));
	const harness = given.harness ?? usualHarness(modules, withSensors, tells);
	if (!given.harness) for (const path of harnessPaths(harness)) assumed.add(path);
	return {
		id: or('id', given.id, () => DEFAULT_ID),
		version: given.version ?? 1,
		maker: given.maker ?? '',
		model: or('model', given.model, () => usual.model),
		use: given.use ?? '',
		tells,
		volts: or('volts', given.volts, () => 12),
		gateway: or(
			'gateway',
			given.gateway,
			() => modules.find(({ role }) => role === 'gateway')?.address ?? modules[0]?.address ?? '0010'
		),
		chassis,
		highVoltage: said('highVoltage', given.highVoltage, () => template === 'electric'),
		brakes: said('brakes', given.brakes, () => USUAL[template].brakes),
		parkingBrake,
		sensor,
		senseResistorOhms: or('senseResistorOhms', given.senseResistorOhms, () => USUAL_SENSE_OHMS),
		modules,
		wheels,
		harness,
		assumed: [...assumed].filter((path) => !FOLLOWS.test(path))
	};
}

/** Each thing of a harness, as `harness.plugs.X11`. */
export const harnessPaths = (harness: Harness): string[] => [
	...(['fuses', 'grounds', 'splices', 'plugs', 'segments'] as const).flatMap((list) =>
		harness[list].map(({ name }) => `harness.${list}.${name}`)
	),
	...harness.terminators.map(({ segment }) => `harness.terminators.${segment}`),
	...harness.conductors.map(({ id }) => `harness.conductors.${id}`)
];
