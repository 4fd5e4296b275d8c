import type { VehicleType } from '$library/index';
import type { OneWork } from '$lib/case/entries/prior-work/payload';
import type { PayloadOf } from '$lib/case/entries/entry';
import { axleWords } from '$lib/case/reason/words';
import { positionWords } from '$lib/case/words';
import { LAMPS } from '$library/positions';
import { latest } from '$lib/case/thread/thread';
import { checkVin } from '$lib/core/vehicle/vin';
import { caseHere } from '$lib/server/cases/access';
import { entryAction, entryFormFor, filled } from '$lib/server/cases/entryForms';
import { emptyCustomer } from '$lib/server/db/customers';
import { ulid } from 'ulid';
import { ComplaintForm, CustomerForm, LampsForm, PriorWorkForm, TyresForm, VehicleForm } from './forms';

/** One row an axle: what belongs on it by the placard. */
function placardRows(type: VehicleType | null, told: NonNullable<PayloadOf<'tyres-fitted'>['placard']>) {
	const wheels = type?.wheels ?? [
		{ axle: 1, position: 'front-left' },
		{ axle: 2, position: 'rear-left' }
	];
	const axles = [...new Map(wheels.map(({ axle, position }) => [axle, axleWords(position)]))];
	return axles.map(([axle, words]) => ({
		axle,
		words,
		size: told.find((one) => one.axle === axle)?.size ?? ''
	}));
}

const YES_NO = { true: 'yes', false: 'no' } as const;
const yesNo = (said: boolean | undefined) => (said === undefined ? ('' as const) : YES_NO[`${said}`]);

/** Work by others as its form shows it: what nobody knows is empty. */
const asTyped = ({ part, when, by, grade, ...one }: OneWork) => ({
	part,
	when,
	by,
	grade,
	work: one.work ?? '',
	position: one.position ?? ('' as const),
	ago: one.ago ?? ('' as const),
	fitter: one.fitter ?? ('' as const),
	seen: yesNo(one.seen),
	stayed: yesNo(one.stayed)
});

function asKept({ part, when, by, grade, ...typed }: ReturnType<typeof asTyped>): OneWork {
	const { work, position, ago, fitter, seen, stayed } = typed;
	return {
		part,
		when,
		by,
		grade,
		...(work ? { work } : {}),
		...(position ? { position } : {}),
		...(ago ? { ago } : {}),
		...(fitter ? { fitter } : {}),
		...(seen ? { seen: seen === 'yes' } : {}),
		...(stayed ? { stayed: stayed === 'yes' } : {})
	};
}

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { row, view } = await caseHere({ params, locals });
	const complaint = latest(view.entries, 'complaint');
	const vehicle = latest(view.entries, 'vehicle-checked');
	const lamps = latest(view.entries, 'lamps-reported');
	const work = latest(view.entries, 'prior-work');
	const tyres = latest(view.entries, 'tyres-fitted');
	const { customers, vehicles } = locals.services;
	const customer = latest(view.entries, 'customer');
	const customerId = customer?.payload.customer ?? null;
	const beforeId = customerId === null ? await vehicles.lastCustomerOf(row.vehicle.id) : null;
	const contactOf = async (id: string | null) => {
		const known = id === null ? null : await customers.find(id);
		return known && { id: known.id, name: known.name, phone: known.phone, email: known.email };
	};
	const customerForm = await entryFormFor(
		CustomerForm,
		{ customer: '', newId: ulid(), ...emptyCustomer() },
		// Who brought it in is told anew, and needs no reason.
		null
	);
	const positions = row.type?.wheels.map((wheel) => wheel.position) ?? [];
	const scanned = view.lastScan?.payload ?? null;
	const complaintForm = await entryFormFor(
		ComplaintForm,
		{
			words: '',
			symptoms: [],
			conditions: [],
			felt: [],
			when: [],
			...complaint?.payload,
			atKmh: complaint?.payload.atKmh ?? null
		},
		complaint
	);
	const vehicleForm = await entryFormFor(
		VehicleForm,
		vehicle
			? { vin: vehicle.payload.vin, odometerKm: vehicle.payload.odometerKm, same: false }
			: {
					// What the vehicle itself has told is only looked at.
					vin: scanned?.vin ?? row.vehicle.vin ?? '',
					odometerKm: scanned?.odometerKm === undefined ? null : Math.round(scanned.odometerKm),
					same: false
				},
		vehicle
	);
	const lampsForm = await entryFormFor(
		LampsForm,
		{
			lamps: LAMPS.map((lamp) => {
				const reported = lamps?.payload.lamps.find((l) => l.lamp === lamp);
				return { lamp, manner: reported?.manner ?? ('off' as const), when: reported?.when ?? '' };
			})
		},
		lamps
	);
	const workForm = await entryFormFor(
		PriorWorkForm,
		{ works: (work?.payload.works ?? []).map(asTyped) },
		work
	);
	const tyresForm = await entryFormFor(
		TyresForm,
		{
			tyres:
				tyres?.payload.tyres ??
				positions.map((position) => ({
					position,
					size: '',
					brand: '',
					treadMm: null,
					pressureKpa: null
				})),
			placard: placardRows(row.type, tyres?.payload.placard ?? [])
		},
		tyres
	);
	return {
		customer: await contactOf(customerId),
		customerNamed: customerId !== null,
		customerBefore: await contactOf(beforeId),
		customerForm,
		complaint: complaint?.payload ?? null,
		vehicle: vehicle?.payload ?? null,
		lamps: lamps?.payload ?? null,
		work: work?.payload ?? null,
		positions: positions.map((position) => ({ position, words: positionWords(position) })),
		tyres: tyres?.payload ?? null,
		scanned: { vin: scanned?.vin ?? null, odometerKm: scanned?.odometerKm ?? null },
		complaintForm,
		vehicleForm,
		lampsForm,
		workForm,
		tyresForm
	};
};

export const actions = {
	complaint: entryAction(
		ComplaintForm,
		'complaint',
		({ words, symptoms, conditions, felt, when, atKmh }) => ({
			words,
			symptoms,
			conditions,
			felt,
			when,
			...(atKmh === null ? {} : { atKmh })
		}),
		'Complaint saved.'
	),
	customer: entryAction(
		CustomerForm,
		'customer',
		async ({ customer, newId, entryId: _entry, corrects: _corrects, why: _why, ...values }, { locals }) => {
			const { customers } = locals.services;
			if (customer !== '') {
				const known = await customers.find(customer);
				return known ? { customer } : 'They were taken out of the shop’s list meanwhile: find them anew.';
			}
			return { customer: (await customers.add(newId, values)).id };
		},
		'Customer saved.'
	),
	vehicle: entryAction(
		VehicleForm,
		'vehicle-checked',
		async ({ vin, odometerKm, same }, { locals, params }) => {
			const checked = checkVin(vin);
			if (!checked.ok) return checked.error;
			const other = same ? null : await locals.services.vehicles.otherWithVin(params.id, checked.value.vin);
			if (other)
				return `That is the number of ${[other.nickname, other.plate].filter(Boolean).join(', ')}. Read it again, or say that it is the same vehicle.`;
			return {
				vin: checked.value.vin,
				checkDigitFits: checked.value.checkDigitFits,
				odometerKm: filled(odometerKm)
			};
		},
		'Vehicle saved.'
	),
	lamps: entryAction(
		LampsForm,
		'lamps-reported',
		({ lamps }) => ({
			lamps: lamps.flatMap(({ lamp, manner, when }) =>
				manner === 'off' ? [] : [{ lamp, manner, when: when === '' ? 'always' : when }]
			)
		}),
		'Lamps saved.'
	),
	work: entryAction(
		PriorWorkForm,
		'prior-work',
		({ works }) => ({ works: works.map(asKept) }),
		'Work by others saved.'
	),
	tyres: entryAction(
		TyresForm,
		'tyres-fitted',
		({ tyres, placard }) => {
			const told = placard.flatMap(({ axle, size }) => (size === '' ? [] : [{ axle, size }]));
			return { tyres, ...(told.length > 0 ? { placard: told } : {}) };
		},
		'Tyres saved.'
	)
};
