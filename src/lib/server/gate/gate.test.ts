import { describe, expect, it } from 'vitest';
import { ENTRY_KINDS, featureOf } from '../../case/entries/registry';
import { refusedKind } from '../cases/sentEntry';
import { askedOf, refusal } from './gate';
import type { Role } from '../accounts/members';
import { PERMISSIONS, SCOPES } from './permissions';

const endpoints = import.meta.glob<Record<string, unknown>>('/src/routes/**/+server.ts', { eager: true });
const pageServers = import.meta.glob<Record<string, unknown>>('/src/routes/**/+page.server.ts', {
	eager: true
});
const pages = import.meta.glob('/src/routes/**/+page{,@*}.svelte');
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
const routeOf = (file: string) => file.slice('/src/routes'.length).replace(/\/\+[^/]*$/, '') || '/';

/** All that the routes answer to, as they are written: `route PUT`, `route page`, `route ?/action`. */
function answered(): string[] {
	const withForms = Object.entries(pageServers).flatMap(([file, server]) => [
		`${routeOf(file)} page`,
		...Object.keys((server.actions ?? {}) as object).map((action) => `${routeOf(file)} ?/${action}`)
	]);
	return [
		...new Set([
			...Object.keys(pages).map((file) => `${routeOf(file)} page`),
			...withForms,
			...Object.entries(endpoints).flatMap(([file, server]) =>
				METHODS.filter((method) => method in server).map((method) => `${routeOf(file)} ${method}`)
			)
		])
	].sort();
}

const named = Object.entries(PERMISSIONS)
	.flatMap(([route, { page, actions, GET, POST, PUT }]) => [
		...(page ? [`${route} page`] : []),
		...Object.keys(actions ?? {}).map((action) => `${route} ?/${action}`),
		...Object.entries({ GET, POST, PUT }).flatMap(([method, who]) => (who ? [`${route} ${method}`] : []))
	])
	.sort();

const url = (path: string) => new URL(path, 'http://127.0.0.1');

describe('the one table of who may do what', () => {
	it('names every page, form and method of every route, and nothing that there is not', () => {
		expect(answered().length).toBeGreaterThan(100);
		expect(named).toEqual(answered());
	});

	it('says who may use a token only where there is a method to use it on', () => {
		for (const [route, row] of Object.entries(PERMISSIONS))
			for (const [method, scope] of Object.entries(row.token ?? {})) {
				expect(row[method as 'GET'], route).toBeDefined();
				expect(SCOPES).toContain(scope);
				// What only reads needs no more than reading, and what adds is never open to it.
				expect(scope, `${route} ${method}`).toBe(method === 'GET' ? 'read' : 'add');
			}
	});

	it('is shut where it has no row: an unknown route, form, method, or a name that every object has', () => {
		for (const [route, method, path] of [
			['/nowhere', 'GET', '/nowhere'],
			['/healthz', 'DELETE', '/healthz'],
			['/healthz', 'PATCH', '/healthz'],
			['/(shop)/figures', 'POST', '/figures'],
			['/(shop)/library', 'POST', '/library?/constructor'],
			['/(shop)/library', 'POST', '/library?/nothing'],
			['constructor', 'GET', '/']
		] as const)
			expect(askedOf(route, method, url(path)), `${method} ${path}`).toBeNull();
		// The first name that begins with a slash is the form, as the pages read it.
		expect(askedOf('/(shop)/library', 'POST', url('/library?x=1&/import'))?.permission).toHaveProperty(
			'lead'
		);
	});

	it('lets each role do what it is for', () => {
		const may = (role: Role, route: string, method: string, path = '/') => {
			const asked = askedOf(route, method, url(path));
			return asked !== null && refusal(asked.permission, role) === null;
		};
		const entries = '/cases/[id]/entries';
		expect(['viewer', 'technician', 'lead'].map((role) => may(role as 'lead', entries, 'POST'))).toEqual([
			false,
			true,
			true
		]);
		expect(
			['viewer', 'technician', 'lead'].map((role) =>
				may(role as 'lead', '/cases/[id]/hand-over', 'POST', '/?/sign')
			)
		).toEqual([false, false, true]);
		expect(may('office', entries, 'POST')).toBe(true);
		expect(may('office', '/cases/[id]/work', 'POST')).toBe(false);
		expect(may('office', '/cases/[id]/mend', 'POST', '/?/repair')).toBe(false);
		expect(may('viewer', '/cases/[id]', 'GET')).toBe(true);
		expect(may('technician', '/(shop)/people', 'GET')).toBe(false);
	});

	it('lets the office write what customers say and are told, and no evidence', () => {
		const atDesk = ENTRY_KINDS.filter((kind) => refusedKind(kind, 'office') === null);
		expect(atDesk).toContain('estimate-answered');
		// Nothing of it changes what is said of a code, but for what whoever drives it says or reads off it.
		expect(atDesk.filter((kind) => featureOf(kind).changesVerdicts)).toEqual([]);
		expect(ENTRY_KINDS.filter((kind) => refusedKind(kind, 'technician') !== null)).toEqual([]);
	});
});
