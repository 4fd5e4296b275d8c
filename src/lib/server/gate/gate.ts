import { mayTakeIn, mayWrite, type Role } from '../accounts/members';
import { PERMISSIONS, type Permission, type RoutePermissions, type Scope } from './permissions';

/** What a request is for: a route, and there a page, a method or a form. */
export interface Asked {
	permission: Permission;
	/** What a token must be for; null = people alone. */
	scope: Scope | null;
	/** It makes the server work: asked for less often. A page itself never does. */
	costs: boolean;
}

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);
const asWritten = (method: string): 'GET' | 'POST' | 'PUT' | null =>
	READS.has(method) ? 'GET' : method === 'POST' || method === 'PUT' ? method : null;

/** The form that a request to a page sends, by the first parameter that begins with a slash. */
const actionOf = (url: URL): string =>
	[...url.searchParams.keys()].find((name) => name.startsWith('/'))?.slice(1) ?? 'default';

/** @returns who may do what this request asks for; null = the table has nothing of the kind, and nobody may */
export function askedOf(routeId: string, method: string, url: URL): Asked | null {
	const row = Object.hasOwn(PERMISSIONS, routeId) ? PERMISSIONS[routeId] : undefined;
	const written = asWritten(method);
	if (!row || !written) return null;
	const permission = permissionIn(row, written, url);
	if (!permission) return null;
	const costs = row.costs === true && (written !== 'GET' || row.page === undefined);
	return { permission, scope: row.token?.[written] ?? null, costs };
}

function permissionIn(row: RoutePermissions, method: 'GET' | 'POST' | 'PUT', url: URL): Permission | null {
	const own = row[method];
	if (own) return own;
	if (method === 'GET') return row.page ?? null;
	const action = actionOf(url);
	return method === 'POST' && row.actions && Object.hasOwn(row.actions, action)
		? (row.actions[action] ?? null)
		: null;
}

const ONLY_LOOKS = 'You can look at everything here, and add nothing: ask a lead for the technician’s role.';

/** What the office is told of the work on a vehicle. */
export const NO_WORK =
	'The office takes vehicles in and speaks with customers; work on a vehicle is for technicians.';

/** @returns why somebody of this role may not; null = they may */
export function refusal(permission: Permission, role: Role): string | null {
	if (permission === 'desk') return mayTakeIn({ role }) ? null : ONLY_LOOKS;
	if (permission === 'writer') return mayWrite({ role }) ? null : role === 'office' ? NO_WORK : ONLY_LOOKS;
	return typeof permission === 'string' || role === 'lead' ? null : permission.lead;
}
