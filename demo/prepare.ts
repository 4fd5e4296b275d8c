import { existsSync, mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { addMember, makeAuth } from '../src/lib/server/accounts/auth';
import { Cases } from '../src/lib/server/db/cases';
import { openDatabase } from '../src/lib/server/db/open';
import { Threads, type Author } from '../src/lib/server/db/threads';
import { Customers, emptyCustomer } from '../src/lib/server/db/customers';
import { Vehicles } from '../src/lib/server/db/vehicles';
import { CASES } from './cases';
import { ShopSettings } from '../src/lib/server/db/shopSettings';
import { PASSWORD, PEOPLE, portsOf, CUSTOMERS, SHOP_NAME, TERMS, VEHICLES } from './shop';
import { Story } from './story';

/**
 * Makes the demo shop in a folder, once: people, vehicles, cases – each lived through on its bench vehicle, which is then
 * put away as it was left. Called again it only points the vehicles at the ports of this run.
 */
const { values } = parseArgs({
	options: { data: { type: 'string' }, secret: { type: 'string' }, 'first-port': { type: 'string' } }
});
const { data, secret, 'first-port': firstPort } = values;
if (!data || !secret || !firstPort) throw new Error('prepare needs --data, --secret and --first-port');

// A shop whose making was cut short is made again from the start.
const made = join(data, 'made');
if (!existsSync(made) && existsSync(data)) {
	for (const name of readdirSync(data)) if (name.startsWith('jaldi.db')) rmSync(join(data, name));
}
const benchFolder = join(data, 'bench');
mkdirSync(benchFolder, { recursive: true });
const db = await openDatabase(`file:${join(data, 'jaldi.db')}`);
const cases = new Cases(db, new Threads(db));
const vehicles = new Vehicles(db);

const HOUR_MS = 3_600_000;

async function makeShop(): Promise<void> {
	const now = new Date();
	const auth = makeAuth({ db, secret: secret as string, origin: 'http://127.0.0.1' });
	const people = new Map<string, Author>();
	for (const person of PEOPLE) {
		const id = await addMember(auth, { ...person, password: PASSWORD });
		people.set(person.username, { id, name: person.name });
	}
	const named = (username: string): Author => {
		const author = people.get(username);
		if (!author) throw new Error(`${username} is not in the shop`);
		return author;
	};
	await new ShopSettings(db).write('shopName', SHOP_NAME, named('marit'));
	for (const { id, typeId, nickname, plate, vin } of VEHICLES) {
		await vehicles.add({ id, typeId, nickname, plate, vin, linkAddress: null, standInAddress: null });
	}
	await new ShopSettings(db).write('terms', TERMS, named('marit'));
	const customers = new Customers(db);
	for (const { id, ...known } of Object.values(CUSTOMERS))
		await customers.add(id, { ...emptyCustomer(), ...known, consentHow: 'at the counter' });
	for (const { vehicle, hoursAgo, tell } of CASES) {
		const described = VEHICLES.find((v) => v.id === vehicle);
		if (!described) throw new Error(`${vehicle} is not in the shop`);
		const story = new Story(db, cases, described, new Date(now.getTime() - hoursAgo * HOUR_MS), now);
		await tell(story, { ana: named('ana'), teo: named('teo'), marit: named('marit') });
		writeFileSync(join(benchFolder, `${vehicle}.json`), JSON.stringify(story.bench.memory));
	}
}

if (!existsSync(made)) {
	await makeShop();
}
for (const [index, { id }] of VEHICLES.entries()) {
	const { linkPort, panelPort } = portsOf(index, Number(firstPort));
	await vehicles.setAddresses(id, `127.0.0.1:${linkPort}`, `127.0.0.1:${panelPort}`);
}
// Where vehicles are looked for: this machine, and the ports that they answer on.
await new ShopSettings(db).write(
	'linkRules',
	['127.0.0.1', ...VEHICLES.map((_, index) => `127.0.0.1:${portsOf(index, Number(firstPort)).linkPort}`)],
	{ id: 'demo', name: 'The demo' }
);
// Says that the shop is whole, and for which ports.
writeFileSync(made, firstPort);
db.$client.close();
