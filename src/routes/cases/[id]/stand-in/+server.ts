import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestEvent } from './$types';
import { caseRowHere } from '$lib/server/cases/access';

const TIMEOUT_MS = 2000;
/** A panel tells of its vehicle, or why it did not do what it was asked. */
const Told = z.union([
	z.looseObject({ places: z.unknown(), key: z.string() }),
	z.object({ error: z.string().max(500) })
]);

/** Passes the control panel of a simulated vehicle through; a real vehicle has none. */
async function panel({ locals, params }: RequestEvent, init?: RequestInit): Promise<Response> {
	const { vehicle } = await caseRowHere(locals.services, params.id);
	if (!vehicle.standInAddress) error(404, 'This vehicle is not simulated.');
	try {
		const response = await fetch(`http://${vehicle.standInAddress}/`, {
			...init,
			redirect: 'error',
			signal: AbortSignal.timeout(TIMEOUT_MS)
		});
		// Only what a panel says is passed on: whatever else listens there is nobody's business.
		const told = Told.parse(await response.json());
		return Response.json(told, { status: response.ok ? 200 : 409 });
	} catch {
		return Response.json({ error: 'The simulated vehicle is not running.' }, { status: 503 });
	}
}

export const _api: ApiRoute = {
	GET: {
		says: 'How the simulated vehicle of a case stands.',
		gives: json('Its key, its places and what hands can do.')
	},
	POST: {
		says: 'What hands do at the simulated vehicle of a case.',
		takes: { media: 'application/json', says: 'One act, as its control panel takes it.' },
		gives: json('How it stands after that.')
	}
};

export async function GET(event) {
	return panel(event);
}

export async function POST(event) {
	return panel(event, { method: 'POST', body: await event.request.text() });
}
