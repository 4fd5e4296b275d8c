import type { ApiRoute } from '$lib/server/api/apiRoute';
import { error } from '@sveltejs/kit';

export const _api: ApiRoute = {
	GET: { says: 'A photo of a case.', gives: { media: 'image/jpeg', says: 'The photo.' } }
};

export async function GET(event) {
	const bytes = await event.locals.services.photos.read(event.params.id, event.params.photo);
	if (!bytes) error(404, 'There is no such photo on this case.');
	return new Response(new Uint8Array(bytes), {
		headers: {
			'content-type': 'image/jpeg',
			'content-security-policy': "default-src 'none'",
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
}
