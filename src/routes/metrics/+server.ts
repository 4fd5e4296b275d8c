import type { ApiRoute } from '$lib/server/api/apiRoute';

export const _api: ApiRoute = {
	GET: {
		says: 'Figures of the running server, for a program that watches over it.',
		gives: { media: 'text/plain', says: 'The text format of Prometheus.' }
	}
};

/** Figures of the running server. */
export async function GET({ locals }) {
	const { metrics } = locals.services;
	return new Response(await metrics.text(), { headers: { 'content-type': metrics.contentType } });
}
