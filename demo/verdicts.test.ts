import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { comebackOf } from '../src/lib/case/proof/comeback';
import { projectCase, type CaseView } from '../src/lib/case/progress/project';
import { addMember, makeAuth } from '../src/lib/server/accounts/auth';
import { Cases } from '../src/lib/server/db/cases';
import { openDatabase } from '../src/lib/server/db/open';
import { ShopFigures } from '../src/lib/server/db/shopFigures';
import { Threads, type Author } from '../src/lib/server/db/threads';
import { Vehicles } from '../src/lib/server/db/vehicles';
import { CASES } from './cases';
import { PASSWORD, PEOPLE, VEHICLES } from './shop';
import { Story } from './story';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-demo-'));
let views: Record<string, CaseView[]> = {};
let figures: Record<string, number> = {};

/** The whole demo shop, told once: every verdict comes from what its bench vehicles did. */
beforeAll(async () => {
	const db = await openDatabase(`file:${join(folder, 'demo.db')}`);
	const threads = new Threads(db);
	const cases = new Cases(db, threads);
	const vehicles = new Vehicles(db);
	const auth = makeAuth({ db, secret: 'x'.repeat(32), origin: 'http://127.0.0.1' });
	const people: Record<string, Author> = {};
	for (const person of PEOPLE)
		people[person.username] = {
			id: await addMember(auth, { ...person, password: PASSWORD }),
			name: person.name
		};
	const { ana, teo, marit } = people;
	if (!ana || !teo || !marit) throw new Error('somebody is missing');
	for (const { id, typeId, nickname, plate, vin } of VEHICLES)
		await vehicles.add({ id, typeId, nickname, plate, vin, linkAddress: null, standInAddress: null });
	for (const { vehicle, hoursAgo, tell } of CASES) {
		const described = VEHICLES.find(({ id }) => id === vehicle);
		if (!described) throw new Error(`${vehicle} is not in the shop`);
		await tell(new Story(db, cases, described, new Date(Date.now() - hoursAgo * 3_600_000)), {
			ana,
			teo,
			marit
		});
	}
	for (const signed of [true, false])
		for (const row of (await cases.page(signed, 1)).rows)
			(views[row.vehicle.id] ??= []).push(projectCase(await threads.read(row.id)));
	figures = Object.fromEntries((await new ShopFigures(db).figures()).map(({ id, value }) => [id, value]));
	db.$client.close();
}, 120_000);
afterAll(() => {
	views = {};
	rmSync(folder, { recursive: true });
});

const only = (vehicle: string): CaseView => {
	const [view, more] = views[vehicle] ?? [];
	if (!view || more) throw new Error(`${vehicle} has no case, or more than one`);
	return view;
};

it.each<[string, string, RegExp]>([
	['minibus', 'Never cleared', /./],
	['vet', 'Cleared, but its test has not run', /Drive/],
	['dairy', 'Not proven yet', /./],
	['shuttle', 'Not read yet', /VIN and odometer/],
	['ambulance', 'Came back at key-on', /./],
	['crew', 'Proven clear', /Ask a lead to sign/],
	['trailer', 'Never cleared', /./],
	['post', 'Never cleared', /Coding, brake control/],
	['pilot', 'Never cleared', /./],
	['slip', 'Not read yet', /Read its codes by the lamp/]
])('%s: %s', (vehicle, verdict, next) => {
	const view = only(vehicle);
	expect(view.verdict).toBe(verdict);
	expect(view.next?.title).toMatch(next);
});

it('the bakery’s van was released early by a lead, by name, and has come back', () => {
	const [signed, again] = views.bakery ?? [];
	expect(signed?.verdict).toBe('Released by a lead, not all of it proven');
	expect(signed?.codes.some(({ proof }) => proof.verdict === 'released')).toBe(true);
	expect(again && comebackOf(again.entries)?.number).toBe('TP-0401');
	expect(again?.proven).toBe(false);
	expect(figures).toMatchObject({ proven: 0, released: 1, comebacks: 1 });
});
