import { error } from '@sveltejs/kit';
import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { vehicleTypes } from '$library/index';
import { descriptionOf } from '$library/vehicle/vehicleType';

export const _api: ApiRoute = {
	GET: {
		says: 'The newest description of a vehicle, as docs/formats/vehicle.schema.json says.',
		gives: json('The description.')
	}
};

/** A description as a file to keep or to pass on. */
export async function GET(event) {
	const { id } = event.params;
	const shipped = vehicleTypes.get(id);
	const found =
		(await event.locals.services.vehicleDescriptions.newest(id)) ?? (shipped && descriptionOf(shipped));
	if (!found) error(404, 'No vehicle of this id is described here.');
	return new Response(`${JSON.stringify(found, null, '\t')}\n`, {
		headers: {
			'content-type': 'application/json',
			'content-disposition': `attachment; filename="${found.id}.json"`
		}
	});
}
