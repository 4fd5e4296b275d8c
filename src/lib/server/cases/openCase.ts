import { ulid } from 'ulid';
import { z } from 'zod';
import { vehicleTypes } from '../../../../library';
import { TEMPLATES } from '../../../../library/vehicle/given';
import { idOf, newDescription } from '../../../../library/vehicle/newDescription';
import { USUAL } from '../../../../library/vehicle/templates';
import { vehicleName, type Described } from '../../../../library/vehicle/vehicleType';
import { WHEEL_SENSORS } from '../../../../library/sensorKinds';
import { upperFirst } from '../../case/words';
import { Ulid } from '../../case/entries/fields';
import { checkVin } from '../../core/vehicle/vin';
import { fail, ok, type Result } from '../../core/result';
import { calledSo, typeName } from '../db/cases';
import type { Vehicle } from '../db/vehicles';
import type { Author } from '../db/threads';
import type { Services } from '../services';
import { addEntry } from './addEntry';
import { describeVehicle } from './describeVehicle';
import { LinkAddress, StandInAddress } from './linkAddress';
import { refusedLink } from './linkRules';

const YES_NO = ['', 'yes', 'no'] as const;
const Sensor = z.enum(WHEEL_SENSORS).default('unknown');

/** What the page asks when a vehicle comes in. An empty answer is "not known". */
export const NewCase = z
	.object({
		caseId: Ulid,
		entryId: Ulid,
		describedId: Ulid,
		promisedId: Ulid,
		/** A vehicle that was here before; empty = one that never was. */
		vehicleId: z.string().max(60),
		/** A type that is described already; empty = it is described now. */
		typeId: z.string().max(80),
		template: z.enum(['', ...TEMPLATES]),
		nickname: z.string().trim().max(80),
		plate: z.string().trim().max(20),
		vin: z.string().trim().max(40),
		axles: z.enum(['', '1', '2', '3']),
		drive: z.enum(['', 'front', 'rear', 'all']),
		volts: z.enum(['', '12', '24']),
		power: z.enum(['', 'combustion', 'hybrid', 'electric']),
		stability: z.enum(YES_NO),
		parkBrake: z.enum(YES_NO),
		airBrakes: z.enum(YES_NO),
		front: Sensor,
		rear: Sensor,
		linkAddress: LinkAddress,
		standInAddress: StandInAddress,
		/** When it is promised, as it was typed. */
		promised: z.string().trim().max(200),
		/** The moment that the page read in it; empty = none. */
		due: z.union([z.iso.datetime(), z.literal('')])
	})
	.superRefine((value, context) => {
		if (value.vehicleId !== '') return;
		const wrong = (path: keyof typeof value, message: string) =>
			context.addIssue({ code: 'custom', path: [path], message });
		if (value.typeId === '' && value.template === '') wrong('template', 'Choose what it is most like.');
		if (!value.nickname) wrong('nickname', 'What is it, or what do you call it?');
		const vin = value.vin === '' ? ok(null) : checkVin(value.vin);
		if (!vin.ok) wrong('vin', vin.error);
	});
export type NewCase = z.output<typeof NewCase>;

export const emptyCase = (): z.input<typeof NewCase> => ({
	caseId: ulid(),
	entryId: ulid(),
	describedId: ulid(),
	promisedId: ulid(),
	vehicleId: '',
	typeId: '',
	template: '',
	nickname: '',
	plate: '',
	vin: '',
	axles: '',
	drive: '',
	volts: '',
	power: '',
	stability: '',
	parkBrake: '',
	airBrakes: '',
	front: 'unknown',
	rear: 'unknown',
	linkAddress: '',
	standInAddress: '',
	promised: '',
	due: ''
});

/** Opens a case; sent twice, the same form opens it once. The error is a sentence for the person. */
export async function openCase(services: Services, asked: NewCase, member: Author): Promise<Result<null>> {
	const { cases, threads } = services;
	const refused =
		asked.linkAddress === ''
			? null
			: refusedLink(asked.linkAddress, await services.settings.read('linkRules'));
	if (refused) return fail(refused);
	const own = new Set([asked.entryId, asked.describedId, asked.promisedId]);
	const known = await cases.find(asked.caseId);
	if (known && (await threads.read(known.id)).some(({ id }) => !own.has(id)))
		return fail('This case is open already: load the page again for a new one.');
	const before = asked.vehicleId === '' ? null : await wasHere(services, asked.vehicleId);
	if (before && !before.ok) return before;
	const described = before ? ok(before.value.described) : await descriptionOf(services, asked);
	if (!described.ok) return described;
	const vehicle = before?.value.vehicle ?? (await addedVehicle(services, asked, described.value));
	await cases.open(asked.caseId, vehicle.id);
	const opened = await addEntry(
		services,
		{
			id: asked.entryId,
			caseId: asked.caseId,
			kind: 'case-opened',
			payload: {
				vehicleId: vehicle.id,
				typeId: vehicle.typeId,
				name: calledSo(typeName(vehicle.typeId, vehicle.typeName), vehicle.nickname),
				plate: vehicle.plate
			}
		},
		member
	);
	if (!opened.ok) return opened;
	const promised = await promise(services, asked, member);
	if (!promised.ok) return promised;
	const { value: description } = described;
	if (!description) return ok(null);
	const entry = { id: asked.describedId, caseId: asked.caseId };
	// What the shop has described before is worked with as it is by now; what is new is kept for the next case.
	const told = (await services.vehicleDescriptions.isTaken(description.id))
		? await addEntry(
				services,
				{ ...entry, kind: 'vehicle-described', payload: { description, because: '' } },
				member
			)
		: await describeVehicle(
				services,
				{ caseId: asked.caseId, entryId: asked.describedId, because: '' },
				description,
				member
			);
	return told.ok ? ok(null) : told;
}

/** Puts down what the customer was promised, where anything was. */
async function promise(services: Services, asked: NewCase, member: Author): Promise<Result<null>> {
	if (asked.promised === '') return ok(null);
	const said = await addEntry(
		services,
		{
			id: asked.promisedId,
			caseId: asked.caseId,
			kind: 'promised',
			payload: { due: asked.due || null, words: asked.promised }
		},
		member
	);
	return said.ok ? ok(null) : said;
}

/** A vehicle of the shop's list, with what the shop has described of it. */
async function wasHere(
	{ vehicles, vehicleDescriptions }: Services,
	vehicleId: string
): Promise<Result<{ vehicle: Vehicle; described: Described | null }>> {
	const vehicle = await vehicles.find(vehicleId);
	if (!vehicle) return fail('That vehicle is no longer in the shop’s list.');
	return ok({ vehicle, described: await vehicleDescriptions.newest(vehicle.typeId) });
}

/** The description of a vehicle that is here for the first time; null where it is of a type as it is shipped. */
async function descriptionOf(
	{ vehicleDescriptions }: Services,
	asked: NewCase
): Promise<Result<Described | null>> {
	if (asked.typeId !== '') {
		const newest = await vehicleDescriptions.newest(asked.typeId);
		if (newest || vehicleTypes.has(asked.typeId)) return ok(newest);
		return fail('That type is no longer described here: choose another.');
	}
	const isTold = (answer: string) => (answer === '' ? undefined : answer === 'yes');
	if (asked.template === '') return fail('Choose what it is most like.');
	const single = asked.template === 'trailer';
	const made = newDescription({
		template: asked.template,
		name: asked.nickname,
		axles: single && asked.axles !== '' ? Number(asked.axles) : undefined,
		drive: asked.drive === '' || single ? undefined : asked.drive,
		volts: asked.volts === '' ? undefined : asked.volts === '24' ? 24 : 12,
		highVoltage: asked.power === '' ? undefined : asked.power !== 'combustion',
		stability: isTold(asked.stability),
		electricParkingBrake: isTold(asked.parkBrake),
		airBrakes: isTold(asked.airBrakes),
		sensors: single
			? ([1, 2, 3] as const)
					.slice(0, asked.axles === '' ? 3 : Number(asked.axles))
					.map((axle) => [`axle${axle}`, asked.front] as const)
			: [
					['front', asked.front],
					['rear', asked.rear]
				]
	});
	if (!made.ok) return made;
	// Two vehicles of one name are two until somebody says that they are one type.
	return ok({ ...made.value, id: `${idOf(asked.nickname)}-${asked.caseId.slice(-6).toLowerCase()}` });
}

/** What stands beside the shop's own words for a vehicle: its kind, or the type that it was said to be of. */
function typeWords({ typeId, template }: NewCase, described: Described | null): string | null {
	if (!described || vehicleTypes.has(described.id)) return null;
	return typeId === '' && template !== '' ? upperFirst(USUAL[template].model) : vehicleName(described);
}

const addedVehicle = (
	{ vehicles }: Services,
	asked: NewCase,
	described: Described | null
): Promise<Vehicle> => {
	const vin = asked.vin === '' ? null : checkVin(asked.vin);
	return vehicles.add({
		// Sent twice, the same form makes the same vehicle.
		id: asked.caseId,
		typeId: described?.id ?? asked.typeId,
		typeName: typeWords(asked, described),
		nickname: asked.nickname,
		plate: asked.plate,
		vin: vin?.ok ? vin.value.vin : null,
		linkAddress: asked.linkAddress || null,
		standInAddress: asked.standInAddress || null
	});
};
