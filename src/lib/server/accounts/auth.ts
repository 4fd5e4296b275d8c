import { betterAuth } from 'better-auth/minimal';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { admin } from 'better-auth/plugins/admin';
import { adminAc, userAc } from 'better-auth/plugins/admin/access';
import { twoFactor } from 'better-auth/plugins/two-factor';
import { username } from 'better-auth/plugins/username';
import type { Database } from '../db/open';
import * as schema from '../db/schema';
import { ROLES, type Member, type Role } from './members';
import { LEAST_PASSWORD, LONGEST_USERNAME, SHORTEST_USERNAME, USERNAME } from './person';

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
		// What it would print has queries with their parameters: tokens. What fails comes to us, and is logged without them.
		logger: { disabled: true },
		onAPIError: { throw: true },
		database: drizzleAdapter(db, { provider: 'sqlite', schema }),
		// Accounts are made by the shop, not by whoever finds the address.
		emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: LEAST_PASSWORD },
		plugins: [
			// What we take as a user name, and nothing narrower.
			username({
				minUsernameLength: SHORTEST_USERNAME,
				maxUsernameLength: LONGEST_USERNAME,
				usernameValidator: (name) => USERNAME.test(name)
			}),
			// Shuts out; who may do what is asked of the gate alone.
			admin({
				defaultRole: 'viewer',
				adminRoles: ['lead'],
				roles: { lead: adminAc, technician: userAc, viewer: userAc },
				bannedUserMessage: 'You are shut out of this shop: ask a lead.'
			}),
			twoFactor({ issuer: 'Jaldi' })
		],
		user: { additionalFields: { role: { type: 'string', defaultValue: 'viewer', input: false } } },
		session: {
			expiresIn: SESSION_S,
			updateAge: 3600,
			additionalFields: { lockedAt: { type: 'string', required: false, input: false } }
		},
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

/** Somebody who is signed in. */
export interface SignedIn {
	member: Member;
	sessionId: string;
	since: Date;
	/** Its screen is locked: nothing is shown until it is opened again. */
	locked: boolean;
}

/** Who sent these headers, with their session, or null. */
export async function sessionOf(auth: Auth, headers: Headers): Promise<SignedIn | null> {
	const session = await auth.api.getSession({ headers });
	if (!session) return null;
	const { id, name, username, role } = session.user as typeof session.user & {
		username?: string;
		role?: string;
	};
	const known = ROLES.find((r) => r === role);
	const member = { id, name, username: username ?? name, role: known ?? ('viewer' as const) };
	const {
		id: sessionId,
		createdAt,
		lockedAt
	} = session.session as typeof session.session & {
		lockedAt?: string | null;
	};
	return { member, sessionId, since: new Date(createdAt), locked: Boolean(lockedAt) };
}

/** Who an account is of; there is no address by post or mail. */
export interface Newcomer {
	name: string;
	username: string;
	role: Role;
}

/** Makes an account that nothing opens yet. @returns its id */
export async function addAccount(auth: Auth, { name, username, role }: Newcomer): Promise<string> {
	const { internalAdapter } = await auth.$context;
	const { id } = await internalAdapter.createUser(
		{
			name,
			email: `${username}@shop.invalid`,
			emailVerified: true,
			username,
			displayUsername: username,
			role
		},
		{ method: 'admin' }
	);
	return id;
}

/** Has a password open an account that nothing opened until now. @param hashed as the accounts library hashes */
export async function openBy(auth: Auth, userId: string, hashed: string): Promise<void> {
	const { internalAdapter } = await auth.$context;
	await internalAdapter.linkAccount({
		userId,
		accountId: userId,
		providerId: 'credential',
		password: hashed
	});
}

/** Makes an account with a password. For the shop's own set-up; there is no public sign-up. */
export async function addMember(auth: Auth, person: Newcomer & { password: string }): Promise<string> {
	const { password } = await auth.$context;
	const id = await addAccount(auth, person);
	await openBy(auth, id, await password.hash(person.password));
	return id;
}
