import { json as jsonOf, type ApiRoute } from '$lib/server/api/apiRoute';
import { json } from '@sveltejs/kit';
import { packJsonSchema } from '$library/packFile';

export const _api: ApiRoute = {
	GET: { says: 'The schema of pack files.', gives: jsonOf('A JSON Schema.') }
};

/** The published schema of pack files. */
export const GET = () => json(packJsonSchema());
