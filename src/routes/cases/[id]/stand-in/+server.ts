import { error } from '@sveltejs/kit';
import { caseRowHere, memberHere, writerHere } from '$lib/server/cases/access';

const TIMEOUT_MS = 2000;

/** Passes the control panel of a simulated vehicle through; a real vehicle has none. */
async function panel(caseId: string, init?: RequestInit): Promise<Response> {
	const { vehicle } = await caseRowHere(caseId);
	if (!vehicle.standInAddress) error(404, 'This vehicle is not simulated.');
	try {
		const response = await fetch(`http://${vehicle.standInAddress}/`, {
			...init,
			signal: AbortSignal.timeout(TIMEOUT_MS)
		});
		return new Response(await response.text(), {
			status: response.status,
			headers: { 'content-type': 'application/json' }
		});
	} catch {
		return Response.json({ error: 'The simulated vehicle is not running.' }, { status: 503 });
	}
}

export async function GET(event) {
	memberHere(event);
	return panel(event.params.id);
}

export async function POST(event) {
	writerHere(event);
	return panel(event.params.id, { method: 'POST', body: await event.request.text() });
}
