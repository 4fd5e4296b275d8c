import { json as answer } from '@sveltejs/kit';
import { json, type ApiRoute } from '$lib/server/api/apiRoute';
import { openApi } from '$lib/server/api/openApi';

const routes = import.meta.glob<ApiRoute>(
	['/src/routes/**/+server.ts', '!/src/routes/api/openapi.json/+server.ts'],
	{
		import: '_api',
		eager: true
	}
);

export const _api: ApiRoute = {
	GET: {
		says: 'This description of the HTTP interface.',
		gives: json('An OpenAPI 3.1 document.')
	}
};

const folderOf = (file: string): string => file.slice('/src/routes'.length, -'/+server.ts'.length);
const all = new Map(
	[...Object.entries(routes), ['/src/routes/api/openapi.json/+server.ts', _api] as const].map(
		([file, route]) => [folderOf(file), route]
	)
);
/** Made when it is first asked for, at each address that this server is asked at: the shapes of every kind of entry take a moment. */
const made = new Map<string, ReturnType<typeof openApi>>();

/** What this server can be asked for, made from what stands beside each route. */
export function GET({ locals }) {
	const { origin } = locals.services;
	const known = made.get(origin) ?? openApi(all, origin);
	made.set(origin, known);
	return answer(known);
}
