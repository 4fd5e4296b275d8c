import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { z } from 'zod';
import { loadCase } from '$lib/server/cases/access';
import { StandInInstruments } from '$lib/server/jobs/standInInstruments';
import { Position } from '../../../../../../library';
import { measurements } from '../../../../../../library/measure';
import { nodeOf } from '../../../../../../library/measurePoints';

const Asked = z.object({
	/** `supply` is the battery against the body. */
	measurement: z.string(),
	position: Position
});
const PlaceAsked = z.object({
	place: z.string().max(60),
	mode: z.enum(['volts-dc', 'ohms']),
	black: z.string().max(60)
});

export const _api: ApiRoute = {
	POST: {
		says: 'Reads the meter of this workplace.',
		takes: z.union([Asked, PlaceAsked]),
		gives: jsonOf('The reading; null = over its range.')
	}
};

/** Reads a meter that is connected to this workplace: the two leads are where the measurement says. */
export async function POST(event) {
	const body: unknown = await event.request.json().catch(() => null);
	const { row, type } = await loadCase(event.locals.services, event.params.id);
	if (!row.vehicle.standInAddress) error(409, 'No meter is connected here: type the reading in.');
	const meter = new StandInInstruments(row.vehicle.standInAddress);
	const answer = async (mode: 'volts-dc' | 'volts-ac' | 'ohms', red: string, black: string) => {
		const read = await meter.read({ mode, red, black });
		if (!read.ok) error(409, read.error);
		return json(read.value);
	};
	const place = PlaceAsked.safeParse(body);
	if (place.success) return answer(place.data.mode, place.data.place, place.data.black);
	const asked = Asked.safeParse(body);
	if (!asked.success) error(400, z.prettifyError(asked.error));
	const { measurement: id, position } = asked.data;
	if (id === 'supply') return answer('volts-dc', 'battery', 'body');
	const one = measurements.find((known) => known.id === id);
	if (!one || !type) error(404, 'There is no such measurement for this vehicle.');
	const [red, black] = [nodeOf(type, position, one.red), nodeOf(type, position, one.black)];
	if (red === null || black === null) error(409, 'This vehicle has no such point.');
	return answer(one.mode, red, black);
}
