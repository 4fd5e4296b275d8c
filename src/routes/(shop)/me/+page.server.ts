import { fail } from '@sveltejs/kit';
import QRCode from 'qrcode';
import { z } from 'zod';
import { Choice, chooseUnits, ownUnits } from '$lib/server/accounts/ownUnits';
import { endSessions } from '$lib/server/accounts/endSessions';
import { tooEasy } from '$lib/server/accounts/passwordStrength';
import { Password } from '$lib/server/accounts/person';
import { passCookies, toAccounts } from '$lib/server/accounts/signingIn';
import { memberHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

const Digits = z.string().regex(/^\d{6}$/, 'Six digits.');
const WRONG = 'That is not your password.';
const TRIED = 'Too many tries. Wait a minute, then try again.';

export const load = async ({ locals }) => {
	const { people, quickCodes } = locals.services;
	const { id } = memberHere({ locals });
	const person = await people.find(id);
	return {
		secondFactor: person?.secondFactor ?? false,
		/** What they chose; null = as the shop has it. */
		ownUnits: await ownUnits(locals.services.db, id),
		hasDigits: await quickCodes.isSet(id),
		sessions: (await people.sessions(id)).map(({ since, seen, ...one }) => ({
			...one,
			since: clock(since.toISOString()),
			seen: clock(seen.toISOString()),
			here: one.id === locals.sessionId
		}))
	};
};

type MeEvent = Parameters<typeof toAccounts>[1] & { cookies: Parameters<typeof passCookies>[1] };

/** What the accounts library says to somebody who gave their password with it. Guesses are counted as at the sign-in. */
async function withPassword(event: MeEvent, path: string, body: object): Promise<Response | string> {
	const { failedTries } = event.locals.services;
	const [address, account] = [event.getClientAddress(), memberHere(event).username];
	if (failedTries.waitS(address, account) > 0) return TRIED;
	const response = await toAccounts(path, event, body);
	if (!response.ok) {
		failedTries.failedOnce(address, account);
		return WRONG;
	}
	failedTries.succeeded(account);
	passCookies(response, event.cookies, event.locals.services);
	return response;
}

export const actions = {
	password: async (event) => {
		const form = await event.request.formData();
		const next = Password.safeParse(form.get('next'));
		const refuse = (error: string) => fail(400, { about: 'password', error });
		if (!next.success) return refuse(next.error.issues[0]?.message ?? '');
		const { settings, adminLog } = event.locals.services;
		const member = memberHere(event);
		const easy = await tooEasy(next.data, [member.name, member.username, await settings.read('shopName')]);
		if (easy) return refuse(easy);
		const done = await withPassword(event, '/change-password', {
			currentPassword: String(form.get('now') ?? ''),
			newPassword: next.data,
			revokeOtherSessions: true
		});
		if (typeof done === 'string') return refuse(done);
		await adminLog.add(member, 'password-changed', { of: member.username });
		return { about: 'password', done: 'It is changed. You are signed out everywhere else.' };
	},
	digits: async (event) => {
		const given = String((await event.request.formData()).get('digits') ?? '').trim();
		const digits = given === '' ? null : Digits.safeParse(given);
		if (digits && !digits.success) return fail(400, { about: 'digits', error: 'Six digits, or nothing.' });
		if (digits && new Set(given).size < 3)
			return fail(400, { about: 'digits', error: 'That is among the first that anybody would try.' });
		await event.locals.services.quickCodes.set(memberHere(event).id, digits?.data ?? null);
		return {
			about: 'digits',
			done: digits ? 'From now on they open a screen that you locked today.' : 'They open nothing any more.'
		};
	},
	factor: async (event) => {
		const password = String((await event.request.formData()).get('password') ?? '');
		const done = await withPassword(event, '/two-factor/enable', { password });
		if (typeof done === 'string') return fail(400, { about: 'factor', error: done });
		const { totpURI, backupCodes } = (await done.json()) as { totpURI: string; backupCodes: string[] };
		return {
			about: 'factor',
			secret: new URL(totpURI).searchParams.get('secret') ?? '',
			drawn: await QRCode.toString(totpURI, { type: 'svg', margin: 1, errorCorrectionLevel: 'M' }),
			backupCodes
		};
	},
	confirm: async (event) => {
		const code = String((await event.request.formData()).get('code') ?? '').replace(/\s/g, '');
		const member = memberHere(event);
		const response = await toAccounts('/two-factor/verify-totp', event, { code });
		if (!response.ok)
			return fail(400, {
				about: 'factor',
				error: 'That is not the code of now: wait for the next, and try once more.'
			});
		passCookies(response, event.cookies, event.locals.services);
		await event.locals.services.adminLog.add(member, 'second-factor-set', { of: member.username });
		return { about: 'factor', done: 'From now on your password alone opens nothing.' };
	},
	factorOff: async (event) => {
		const password = String((await event.request.formData()).get('password') ?? '');
		const done = await withPassword(event, '/two-factor/disable', { password });
		if (typeof done === 'string') return fail(400, { about: 'factor', error: done });
		const member = memberHere(event);
		await event.locals.services.adminLog.add(member, 'second-factor-taken-off', { of: member.username });
		return { about: 'factor', done: 'Your password alone opens your account again.' };
	},
	units: async (event) => {
		const form = await event.request.formData();
		const asShop = form.get('as') === 'shop';
		const choice = Choice.safeParse(Object.fromEntries(form));
		if (!asShop && !choice.success) return fail(400, { about: 'units', error: 'Choose one unit of each.' });
		await chooseUnits(event.locals.services.db, memberHere(event).id, asShop ? null : (choice.data ?? null));
		return { about: 'units', done: 'Saved: from now on you read and type them so.' };
	},
	end: async (event) => {
		await endSessions(
			event,
			memberHere(event).id,
			String((await event.request.formData()).get('session') ?? '')
		);
		return { about: 'sessions', done: '' };
	}
};
