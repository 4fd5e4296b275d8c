// npm run member -- USERNAME "Name as it stands on the thread" technician|lead|office|viewer
//
// Adds somebody to the shop that the environment names (of a chain, JALDI_SHOP); the password comes on standard input. A new shop begins with its lead.
//
// npm run member -- USERNAME --new-way-in
//
// For whoever can sign in no more, also the only lead: takes the second factor off and says a code to choose a new password with.
import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { addMember, makeAuth } from '../src/lib/server/accounts/auth';
import { People } from '../src/lib/server/accounts/people';
import { ROLES } from '../src/lib/server/accounts/members';
import { Person } from '../src/lib/server/accounts/person';
import { openDatabase } from '../src/lib/server/db/open';
import { shopMeant } from '../src/lib/server/chain/shopsFile';
import { completeEnvironment, ROOT } from './environment.mjs';

const Newcomer = Person.extend({ role: z.enum(ROLES, `A role is ${ROLES.join(', ')}.`) });

/** Who does it, as it stands on the admin log. */
const AT_THE_SERVER = { id: 'server', name: 'Whoever runs the server' };

async function newWayIn(username: string): Promise<number> {
	const options = shopMeant(completeEnvironment(process.env));
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	try {
		const people = new People(db, makeAuth({ db, secret: options.secret, origin: options.origin }));
		const person = (await people.all()).find((one) => one.username === username);
		if (!person) {
			console.error(`There is no ${username} in this shop.`);
			return 1;
		}
		if (person.secondFactor) await people.takeSecondFactorOff(person.id, AT_THE_SERVER);
		const code = await people.reset(person.id, AT_THE_SERVER);
		if (!code.ok) {
			console.error(code.error);
			return 1;
		}
		console.log(
			`${person.name} comes in at ${options.origin}/join with the code ${code.value} (seven days, once).`
		);
		return 0;
	} finally {
		db.$client.close();
	}
}

async function add(): Promise<number> {
	const [username, name, role] = process.argv.slice(2);
	if (username && name === '--new-way-in') return newWayIn(username);
	const password = readFileSync(0, 'utf8').replace(/\r?\n$/, '');
	const person = Newcomer.safeParse({ username, name, role, password });
	if (!person.success) {
		console.error(
			`${z.prettifyError(person.error)}\nUsage: npm run member -- USERNAME "NAME" ROLE < PASSWORD`
		);
		return 2;
	}
	const options = shopMeant(completeEnvironment(process.env));
	const db = await openDatabase(options.databaseUrl, options.databaseToken);
	try {
		await addMember(makeAuth({ db, secret: options.secret, origin: options.origin }), person.data);
	} catch (error) {
		if (!(error instanceof Error && /is already taken/.test(error.message))) throw error;
		console.error(`${person.data.username} is in this shop already.`);
		return 1;
	} finally {
		db.$client.close();
	}
	console.log(`${person.data.name} (${person.data.username}) is in this shop now, as ${person.data.role}.`);
	return 0;
}

process.umask(0o077);
process.chdir(ROOT);
try {
	process.exitCode = await add();
} catch (error) {
	// Whoever runs a shop reads a sentence, not a stack.
	console.error(`Nobody was added: ${error instanceof Error ? error.message : String(error)}`);
	process.exitCode = 1;
}
