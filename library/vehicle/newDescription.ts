import { fail, ok, type Result } from '../../src/lib/core/result';
import { POSITIONS, type Position } from '../positions';
import type { WheelSensor } from '../sensorKinds';
import { completed, SAID_BY_KIND } from './complete';
import type { Given, Template } from './given';
import { USUAL } from './templates';
import type { Described } from './vehicleType';

/** What somebody knows of a vehicle in its first two minutes. */
export interface Answers {
	template: Template;
	/** What it is, in words. */
	name?: string | undefined;
	axles?: number | undefined;
	drive?: Described['chassis']['drive'] | undefined;
	volts?: 12 | 24 | undefined;
	/** At a position, `front`, `rear` or `axle2`; later ones win. */
	sensors?: readonly (readonly [place: string, sensor: WheelSensor])[];
	/** Whether it has stability control; a template has it where it is usual. */
	stability?: boolean | undefined;
	electricParkingBrake?: boolean | undefined;
	/** Whether compressed air presses its brakes. */
	airBrakes?: boolean | undefined;
	/** Whether it has a system above 60 V, as electric vehicles and hybrids have. */
	highVoltage?: boolean | undefined;
}

const MOST_AXLES = 3;

/** A description by what is known and, for the rest, what is usual. The error says which answer does not fit. */
export function newDescription(answers: Answers): Result<Described> {
	const { template, name, axles, drive, volts, sensors = [], stability, electricParkingBrake } = answers;
	const usual = USUAL[template];
	const positions = positionsOf(template, axles);
	if (!positions.ok) return positions;
	const bySensor = new Map<Position, WheelSensor>();
	for (const [place, sensor] of sensors) {
		const here = positions.value.filter((one) => one === place || one.startsWith(`${place}-`));
		if (here.length === 0)
			return fail(`a ${usual.model} has no “${place}”: it has ${positions.value.join(', ')}`);
		for (const position of here) bySensor.set(position, sensor);
	}
	const own = name?.trim() ?? '';
	const given: Given = {
		template,
		...(own ? { model: own, id: idOf(own) } : { id: `usual-${template}` }),
		...(volts ? { volts } : {}),
		...(drive ? { chassis: { drive } } : {}),
		...(answers.highVoltage === undefined ? {} : { highVoltage: answers.highVoltage }),
		...(answers.airBrakes === undefined ? {} : { brakes: answers.airBrakes ? 'air' : 'hydraulic' }),
		...(electricParkingBrake === undefined
			? {}
			: {
					parkingBrake: {
						by: electricParkingBrake ? ('motor' as const) : ('hand' as const),
						axles: [rearAxle(positions.value)]
					}
				}),
		wheels: positions.value.map((position) => {
			const sensor = bySensor.get(position);
			return sensor ? { position, sensor } : { position };
		})
	};
	const roles = usual.modules
		.filter((role) => stability !== false || (role !== 'steering-angle' && role !== 'yaw'))
		.filter((role) => electricParkingBrake !== false || role !== 'park-brake');
	if (
		electricParkingBrake &&
		!roles.includes('park-brake') &&
		SAID_BY_KIND[template].every((path) => path !== 'parkingBrake')
	)
		roles.push('park-brake');
	const asUsual = roles.join() === usual.modules.join();
	const made = completed(asUsual ? given : { ...given, modules: roles.map((role) => ({ role })) });
	// Which modules it has follows from what was answered, and that nobody has looked.
	return ok(asUsual ? made : { ...made, assumed: [...made.assumed, 'modules'] });
}

function positionsOf(template: Template, axles: number | undefined): Result<Position[]> {
	const all = USUAL[template].wheels;
	if (axles === undefined) return ok(all.flat());
	const most = template === 'trailer' ? MOST_AXLES : all.length;
	const least = template === 'trailer' ? 1 : all.length;
	if (axles < least || axles > most)
		return fail(
			`a ${USUAL[template].model} has ${least === most ? least : `${least} to ${most}`} axles, not ${axles}`
		);
	return ok(all.slice(0, axles).flat());
}

const rearAxle = (positions: readonly Position[]): number =>
	Math.max(
		...positions.map((position) =>
			position.startsWith('axle') ? Number(position[4]) : position.startsWith('front') ? 1 : 2
		)
	);

/** "White saloon, 2011" → `white-saloon-2011`. */
export const idOf = (name: string): string =>
	name
		.normalize('NFD')
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, '-')
		.slice(0, 60)
		.replace(/^-+|-+$/g, '') || 'described-vehicle';

/** Whether something is a place where sensors can be said to be: a position, an end, or an axle. */
export const isSensorPlace = (place: string): boolean =>
	POSITIONS.some((position) => position === place || position.startsWith(`${place}-`));
