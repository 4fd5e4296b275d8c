import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { memberHere } from '$lib/server/cases/access';
import { vehicleTypes } from '$library/index';
import { Corrections, corrected } from '$library/vehicle/correct';
import { descriptionOf } from '$library/vehicle/vehicleType';

const Asked = z.object({ because: z.string().trim().max(300), corrections: Corrections });

export const _api: ApiRoute = {
	PUT: {
		says: 'Puts right what is described of a type of vehicle, as its next version.',
		takes: Asked,
		gives: jsonOf('The number of the version, and how much of it is still assumed.')
	}
};

export async function PUT(event) {
	const member = memberHere(event);
	const asked = Asked.safeParse(await event.request.json().catch(() => null));
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const { vehicleDescriptions } = event.locals.services;
	const { id } = event.params;
	const shipped = vehicleTypes.get(id);
	const newest = (await vehicleDescriptions.newest(id)) ?? (shipped ? descriptionOf(shipped) : null);
	if (!newest) error(404, 'No vehicle is described under this name.');
	const next = corrected(newest, asked.data.corrections);
	if (!next.ok) error(400, next.error);
	const kept = await vehicleDescriptions.keep(next.value, member, asked.data.because);
	return json({ version: kept.version, assumed: kept.assumed.length });
}
