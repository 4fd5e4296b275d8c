import { fail } from '@sveltejs/kit';
import { mayEditCodes } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { vehicleTypes } from '$library/index';
import { readDescription, type Problem } from '$library/vehicle/check';
import { vehicleName } from '$library/vehicle/vehicleType';

export const load = async (event) => {
	const own = await event.locals.services.vehicleDescriptions.list();
	const mine = new Set(own.map(({ id }) => id));
	return {
		mayEdit: mayEditCodes(memberHere(event)),
		own: own.map(({ madeAt, ...one }) => ({ ...one, date: madeAt.slice(0, 10), time: clock(madeAt) })),
		shipped: [...vehicleTypes.values()]
			.filter(({ id }) => !mine.has(id))
			.map((type) => ({ id: type.id, name: vehicleName(type), use: type.use }))
	};
};

const MOST_TOLD = 20;

export const actions = {
	default: async (event) => {
		const member = memberHere(event);
		const refuse = (status: number, name: string, problems: Problem[]) =>
			fail(status, {
				refused: { name, problems: problems.slice(0, MOST_TOLD), more: problems.length - MOST_TOLD }
			});
		const file = (await event.request.formData()).get('file');
		if (!(file instanceof File) || file.size === 0)
			return refuse(400, '', [{ path: '', reason: 'Choose a file first: JSON, and not empty.' }]);
		const read = readDescription(await file.text());
		if (!read.ok) return refuse(400, file.name, read.problems);
		if (read.described.assumed.includes('id'))
			return refuse(400, file.name, [
				{ path: 'id', reason: 'give it one: by it the shop knows this type again' }
			]);
		const kept = await event.locals.services.vehicleDescriptions.keep(
			read.described,
			member,
			`Brought in as ${file.name}`
		);
		return { taken: { name: vehicleName(kept), version: kept.version, assumed: kept.assumed.length } };
	}
};
