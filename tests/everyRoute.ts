import { ulid } from 'ulid';
import { PERMISSIONS } from '../src/lib/server/gate/permissions';

/** One thing that can be asked of the server. */
export interface Ask {
	route: string;
	method: string;
	/** Below the origin, with the ids put in. */
	path: string;
	form: boolean;
	/** Whether its ids are of things that there are. */
	known: boolean;
}

const KNOWN: Record<string, string> = {
	code: 'C0045',
	pack: 'chassis-table',
	address: '1010'
};

/** Every page, form and method of the table, of things that there are and of others. */
export function everything(caseId: string): Ask[] {
	return Object.entries(PERMISSIONS).flatMap(([route, row]) => {
		const fill = (known: boolean) =>
			route
				.replace('/(shop)', '')
				.replace(/\[(\w+)\]/g, (_, name: string) =>
					known && name === 'id' && route.startsWith('/cases')
						? caseId
						: ((known ? KNOWN[name] : undefined) ?? ulid())
				) || '/';
		const ways = [
			...(row.page && route !== '/preferences' ? [{ method: 'GET', query: '', form: false }] : []),
			...Object.keys(row.actions ?? {}).map((name) => ({
				method: 'POST',
				query: name === 'default' ? '' : `?/${name}`,
				form: true
			})),
			...(['GET', 'POST', 'PUT'] as const)
				.filter((method) => row[method])
				.map((method) => ({ method, query: '', form: false }))
		];
		return [true, false].flatMap((known) =>
			ways.map(({ method, query, form }) => ({ route, method, path: fill(known) + query, form, known }))
		);
	});
}

/** Asks it as a page of that origin would. */
export async function send(origin: string, { method, path, form }: Ask, headers: Record<string, string>) {
	const over = new AbortController();
	const answer = await fetch(origin + path, {
		method,
		redirect: 'manual',
		signal: over.signal,
		headers: {
			origin,
			accept: method === 'GET' ? 'text/html' : 'application/json',
			...(form ? { 'content-type': 'application/x-www-form-urlencoded', 'x-sveltekit-action': 'true' } : {}),
			...(method !== 'GET' && !form ? { 'content-type': 'application/json' } : {}),
			...headers
		},
		...(method === 'GET' ? {} : { body: form ? '' : '{}' })
	});
	// A stream goes on for ever: how it begins will do. A form that fails inside says so in its words.
	const body = answer.headers.get('content-type')?.startsWith('text/event-stream') ? '' : await answer.text();
	over.abort();
	const inside = form ? (/"status":(\d{3})/.exec(body)?.[1] ?? '') : '';
	return { status: Number(inside || answer.status), to: answer.headers.get('location') ?? '', body };
}
