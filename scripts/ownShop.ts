import { rmSync } from 'node:fs';
import { PASSWORD } from '../demo/shop';
import { buildWhenStale } from './build.mjs';
import { startShop } from './shop.mjs';

/** A demo shop of its own for a script that is hard on it, on ports that nobody else uses. */
export async function ownShop(data: string, port: number, logLevel = 'fatal') {
	// It is asked faster than people ask.
	process.env.JALDI_REQUESTS_PER_MINUTE ??= '1000000';
	buildWhenStale();
	rmSync(data, { recursive: true, force: true });
	return startShop({ data, port, firstPort: port + 10, logLevel });
}

/** Signs somebody in. @returns the cookie of the session */
export async function signIn(origin: string, username: string): Promise<string> {
	const answer = await fetch(`${origin}/sign-in?/in`, {
		method: 'POST',
		headers: { origin, 'content-type': 'application/x-www-form-urlencoded', accept: 'application/json' },
		body: new URLSearchParams({ username, password: PASSWORD }),
		redirect: 'manual'
	});
	const cookie = answer.headers
		.getSetCookie()
		.map((one) => one.split(';')[0])
		.join('; ');
	if (!cookie) throw new Error(`${username} could not sign in: ${await answer.text()}`);
	return cookie;
}

/** Ids of the cases on the floor. */
export async function openCases(origin: string, cookie: string): Promise<string[]> {
	const floor = await (await fetch(origin, { headers: { cookie, accept: 'text/html' } })).text();
	return [...new Set([...floor.matchAll(/\/cases\/([0-9A-Z]{26})/g)].map(([, id]) => id ?? ''))];
}
