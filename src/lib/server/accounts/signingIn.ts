import type { Cookies } from '@sveltejs/kit';
import type { Services } from '../services';
import { CLIENT_ADDRESS_HEADER } from './auth';

/** Hands a request to the accounts library as from this browser, with an address the browser cannot invent. */
export async function toAccounts(
	path: string,
	event: { request: Request; locals: App.Locals; getClientAddress(): string },
	body: unknown
): Promise<Response> {
	const { auth, origin } = event.locals.services;
	const headers = new Headers({
		'content-type': 'application/json',
		origin,
		cookie: event.request.headers.get('cookie') ?? '',
		'user-agent': event.request.headers.get('user-agent') ?? '',
		[CLIENT_ADDRESS_HEADER]: event.getClientAddress()
	});
	return auth.handler(
		new Request(`${origin}/api/auth${path}`, { method: 'POST', headers, body: JSON.stringify(body) })
	);
}

/** Passes the session cookie on; it is written by the accounts library, HttpOnly and SameSite=Lax. */
export function passCookies(
	response: Response,
	cookies: Cookies,
	{ origin }: Pick<Services, 'origin'>
): void {
	for (const header of response.headers.getSetCookie()) {
		const [pair = '', ...attributes] = header.split('; ');
		const at = pair.indexOf('=');
		const maxAge = attributes.find((a) => a.toLowerCase().startsWith('max-age='))?.slice('max-age='.length);
		cookies.set(pair.slice(0, at), pair.slice(at + 1), {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: origin.startsWith('https:'),
			maxAge: maxAge === undefined ? undefined : Number(maxAge),
			encode: (value) => value
		});
	}
}
