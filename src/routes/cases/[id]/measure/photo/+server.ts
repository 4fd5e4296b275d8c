import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { error, json } from '@sveltejs/kit';
import { Ulid } from '$lib/case/entries/fields';
import { caseRowHere, memberHere } from '$lib/server/cases/access';
import { MOST_PHOTO_BYTES } from '$lib/server/db/photos';

export const _api: ApiRoute = {
	POST: {
		says: 'Keeps a photo for an entry that will name it.',
		query: { id: 'ULID of the photo' },
		takes: { media: 'image/*', says: 'The photo.' },
		gives: jsonOf('Its id, hash and size.')
	}
};

/** Takes one photo, under the id that the page has given it. */
export async function POST(event) {
	const member = memberHere(event);
	const row = await caseRowHere(event.locals.services, event.params.id);
	if (row.signed) error(409, 'This case is signed: its thread is closed.');
	const id = event.url.searchParams.get('id') ?? '';
	if (!Ulid.safeParse(id).success) error(400, 'A photo needs an id.');
	if (Number(event.request.headers.get('content-length') ?? 0) > MOST_PHOTO_BYTES)
		error(413, 'A photo may have up to 25 MB.');
	const sent = new Uint8Array(await event.request.arrayBuffer());
	if (sent.length > MOST_PHOTO_BYTES) error(413, 'A photo may have up to 25 MB.');
	const kept = await event.locals.services.photos.keep({ id, caseId: row.id, authorId: member.id }, sent);
	if (!kept.ok) error(415, kept.error);
	const { sha256, width, height } = kept.value;
	return json({ id, sha256, width, height });
}
