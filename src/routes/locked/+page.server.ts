import { fail, redirect } from '@sveltejs/kit';
import { sessionOf } from '$lib/server/accounts/auth';
import { wayBack } from '$lib/server/accounts/wayBack';

export const load = async ({ locals, url, request }) => {
	const { auth, quickCodes, origin } = locals.services;
	const signedIn = await sessionOf(auth, request.headers);
	if (!signedIn?.locked) redirect(303, wayBack(url, origin));
	return {
		name: signedIn.member.name,
		digits: await quickCodes.opensToday(signedIn),
		back: wayBack(url, origin)
	};
};

export const actions = {
	lock: async ({ locals, url }) => {
		const { quickCodes, streams, origin } = locals.services;
		if (locals.sessionId) {
			streams.endOf(locals.sessionId);
			await quickCodes.lock(locals.sessionId);
		}
		redirect(303, `/locked?back=${encodeURIComponent(wayBack(url, origin))}`);
	},
	open: async (event) => {
		const { auth, quickCodes, failedTries, origin } = event.locals.services;
		const signedIn = await sessionOf(auth, event.request.headers);
		if (!signedIn) redirect(303, '/sign-in');
		// Counted by the screen: who guesses at one does not keep its owner out of another.
		const [address, screen] = [event.getClientAddress(), `screen ${signedIn.sessionId}`];
		if (failedTries.waitS(address, screen) > 0)
			return fail(429, { error: 'Too many tries. Wait a minute, then try again, or sign in anew.' });
		const secret = String((await event.request.formData()).get('secret') ?? '').slice(0, 200);
		if (!(await quickCodes.open(signedIn, secret))) {
			failedTries.failedOnce(address, screen);
			return fail(400, { error: 'That does not open it.' });
		}
		failedTries.succeeded(screen);
		redirect(303, wayBack(event.url, origin));
	}
};
