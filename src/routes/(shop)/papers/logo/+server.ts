import { error } from '@sveltejs/kit';
import type { ApiRoute } from '$lib/server/api/apiRoute';

export const _api: ApiRoute = {
	GET: { says: 'The shop’s mark as it stands on papers.', gives: { media: 'image/png', says: 'The mark.' } }
};

export async function GET({ locals }) {
	const logo = await locals.services.settings.read('shopLogo');
	if (logo === '') error(404, 'No mark is kept.');
	return new Response(new Uint8Array(Buffer.from(logo, 'base64')), {
		headers: { 'content-type': 'image/png', 'cache-control': 'private, no-cache' }
	});
}
