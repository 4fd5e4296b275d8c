import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { describeVehicle } from '$lib/server/cases/describeVehicle';
import { corrected, Corrections } from '$library/vehicle/correct';
import { descriptionOf } from '$library/vehicle/vehicleType';

const Asked = z.object({ entryId: Ulid, because: z.string().trim().max(300), corrections: Corrections });

export const _api: ApiRoute = {
	PUT: {
		says: 'Puts right what is described of the vehicle of a case; the next case of its type begins with it.',
		takes: Asked,
		gives: jsonOf('How much of it is still assumed.')
	}
};

/** What was found out at the vehicle: a further version of its description, on the thread and for the next case. */
export async function PUT(event) {
	const member = memberHere(event);
	const asked = Asked.safeParse(await event.request.json().catch(() => null));
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const { entryId, because, corrections } = asked.data;
	const { type, view, row } = await loadCase(event.locals.services, event.params.id);
	if (view.signature) error(409, 'This case is signed: its thread is closed.');
	if (!type) error(409, 'The vehicle of this case is not described.');
	// What others have found out since on another vehicle of its type comes along.
	const newest = await event.locals.services.vehicleDescriptions.newest(type.id);
	const next = corrected(newest ?? descriptionOf(type), corrections);
	if (!next.ok) error(400, next.error);
	const stored = await describeVehicle(
		event.locals.services,
		{ caseId: row.id, entryId, because },
		next.value,
		member
	);
	if (!stored.ok) error(409, stored.error);
	return json({ assumed: next.value.assumed.length });
}
