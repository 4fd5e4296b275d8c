import { betterAuth } from 'better-auth/minimal';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { username } from 'better-auth/plugins/username';
import type { Database } from '../db/open';
import * as schema from '../db/schema';
import { ROLES, type Member, type Role } from './members';

const SESSION_S = 12 * 3600;
/** Set by our own server from the socket, never taken from a browser. */
export const CLIENT_ADDRESS_HEADER = 'x-jaldi-client-address';

export interface AuthOptions {
	db: Database;
	secret: string;
	origin: string;
}

export function makeAuth({ db, secret, origin }: AuthOptions) {
	return betterAuth({
		baseURL: origin,
		secret,
		trustedOrigins: [origin],
		telemetry: { enabled: false },
		database: drizzleAdapter(db, { provider: 'sqlite', schema }),
		// Accounts are made by the shop, not by whoever finds the address.
		emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 8 },
		plugins: [username()],
		user: { additionalFields: { role: { type: 'string', defaultValue: 'viewer', input: false } } },
		session: { expiresIn: SESSION_S, updateAge: 3600 },
		rateLimit: {
			enabled: true,
			storage: 'memory',
			window: 60,
			max: 600,
			// Tries to sign in are counted where they are answered: by account as well, and only those that failed.
			customRules: { '/sign-in/username': { window: 60, max: 600 } }
		},
		advanced: {
			cookiePrefix: 'jaldi',
			useSecureCookies: origin.startsWith('https:'),
			defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
			ipAddress: { ipAddressHeaders: [CLIENT_ADDRESS_HEADER] }
		}
	});
}

export type Auth = ReturnType<typeof makeAuth>;

/** Who sent these headers, with their session, or null. */
export async function sessionOf(
	auth: Auth,
	headers: Headers
): Promise<{ member: Member; sessionId: string } | null> {
	const session = await auth.api.getSession({ headers });
	if (!session) return null;
	const { id, name, username, role } = session.user as typeof session.user & {
		username?: string;
		role?: string;
	};
	const known = ROLES.find((r) => r === role);
	const member = { id, name, username: username ?? name, role: known ?? ('viewer' as const) };
	return { member, sessionId: session.session.id };
}

/** Who sent these headers, or null. */
export const memberOf = async (auth: Auth, headers: Headers): Promise<Member | null> =>
	(await sessionOf(auth, headers))?.member ?? null;

/** Makes an account. For the shop's own set-up; there is no public sign-up. */
export async function addMember(
	auth: Auth,
	person: { name: string; username: string; password: string; role: Role }
): Promise<string> {
	const context = await auth.$context;
	const created = await context.internalAdapter.createUser(
		{
			name: person.name,
			email: `${person.username}@shop.invalid`,
			emailVerified: true,
			username: person.username,
			displayUsername: person.username,
			role: person.role
		},
		{ method: 'admin' }
	);
	await context.internalAdapter.linkAccount({
		userId: created.id,
		accountId: created.id,
		providerId: 'credential',
		password: await context.password.hash(person.password)
	});
	return created.id;
}
