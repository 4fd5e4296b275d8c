import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { Machine } from '../machine';
import { addMember } from '../accounts/auth';
import { startServices } from '../services';
import { ShopIsShut, Shops, type Doorkeeper } from './shops';
import { shopMeant, shopsInFile } from './shopsFile';

const folder = mkdtempSync(join(tmpdir(), 'jaldi-chain-'));
afterAll(() => rmSync(folder, { recursive: true }));

const file = join(folder, 'shops.json');
function list(shops: unknown): string {
	writeFileSync(file, typeof shops === 'string' ? shops : JSON.stringify({ shops }));
	return file;
}
const NORTH = { name: 'north', origin: 'https://north.example.test' };
const SOUTH = { name: 'south', origin: 'http://south.example.test:8080' };

describe('the shops that a file lists', () => {
	it('each have a folder, a secret, an address and places of their own', () => {
		const [north, south] = shopsInFile(
			list([NORTH, { ...SOUTH, folder: 'elsewhere/south', database: 'libsql://south.example.test' }]),
			{ JALDI_BACKUP_TO: '/backups/', JALDI_BLOBS: 's3://samples/chain', JALDI_LOG_LEVEL: 'warn' }
		);
		expect(north?.options).toMatchObject({
			name: 'north',
			origin: NORTH.origin,
			databaseUrl: `file:${join(folder, 'north', 'jaldi.db')}`,
			backups: { to: '/backups/north' },
			objects: { bucket: 'samples', prefix: 'chain/north/' },
			logLevel: 'warn'
		});
		expect(south?.options).toMatchObject({ databaseUrl: 'libsql://south.example.test' });
		const secrets = ['north', 'elsewhere/south'].map((at) => join(folder, at, 'secret'));
		expect(secrets.map((at) => statSync(at).mode & 0o777)).toEqual([0o600, 0o600]);
		expect(north?.options.secret).toBe(readFileSync(secrets[0] ?? '', 'utf8'));
		expect(north?.options.secret).not.toBe(south?.options.secret);
	});

	it.each([
		['no file of shops', '{', /shops\.json: .*JSON/],
		['none', [], /Too small/],
		['a name that is a way out', [{ ...NORTH, name: '../north' }], /Small letters/],
		['an address with a path', [{ ...NORTH, origin: 'https://north.example.test/shop' }], /Only protocol/],
		['an address without a protocol', [{ ...NORTH, origin: 'north.example.test' }], /Invalid URL/],
		['something that is not known', [{ ...NORTH, secret: 'x' }], /Unrecognized key/],
		['a name twice', [NORTH, { ...SOUTH, name: 'north' }], /north and north have the same name/],
		[
			'an address twice',
			[NORTH, { ...SOUTH, origin: NORTH.origin }],
			/north and south have the same address/
		],
		['a database twice', [NORTH, { ...SOUTH, folder: 'north' }], /the same database/]
	])('are refused with a sentence: %s', (_, shops, words) => {
		expect(() => shopsInFile(list(shops), {})).toThrow(words);
	});

	it('are named for a command, which is about one of them', () => {
		const env = { JALDI_SHOPS: list([NORTH, SOUTH]) };
		expect(shopMeant({ ...env, JALDI_SHOP: 'south' }).origin).toBe(SOUTH.origin);
		expect(() => shopMeant(env)).toThrow('JALDI_SHOP must say which shop: north, south.');
	});
});

describe('a chain', () => {
	const own = (name: string, origin: string) => {
		const data = join(folder, 'open', name);
		mkdirSync(data, { recursive: true });
		return {
			name,
			options: {
				name,
				origin,
				databaseUrl: `file:${join(data, 'jaldi.db')}`,
				secret: 'x'.repeat(32),
				logLevel: 'silent'
			}
		};
	};
	const north = own('north', 'https://north.example.test');
	const south = own('south', 'http://south.example.test');
	const at = (url: string) => new URL(url);

	it('leads each address to its shop and no other, and closes all of them', async () => {
		const shops = Shops.chain([north, south], { opened: () => {}, shut: () => {} });
		const [atNorth, atSouth] = await Promise.all([
			shops.at(at('https://north.example.test/cases')),
			shops.at(at('http://south.example.test/'))
		]);
		expect([atNorth?.origin, atSouth?.origin]).toEqual([north.options.origin, south.options.origin]);
		expect(shops.at(at('http://north.example.test/'))).toBeNull();
		expect(shops.at(at('https://east.example.test/'))).toBeNull();
		if (atNorth)
			await addMember(atNorth.auth, {
				name: 'Nan',
				username: 'nan',
				password: 'tide-tables-9',
				role: 'lead'
			});
		expect([await atNorth?.firstLead.isWanted(), await atSouth?.firstLead.isWanted()]).toEqual([false, true]);
		const lock = join(folder, 'open', 'north', 'jaldi.db.lock');
		expect(existsSync(lock)).toBe(true);
		await shops.stop();
		expect(existsSync(lock)).toBe(false);
	});

	it('goes on without a shop that cannot be opened, and tries it again later', async () => {
		let broken = true;
		let clock = 0;
		let tries = 0;
		const shut: string[] = [];
		const opened: string[] = [];
		const told: Doorkeeper = {
			opened: ({ origin }) => void opened.push(origin),
			shut: (name, error) => shut.push(`${name}: ${error instanceof Error ? error.message : ''}`)
		};
		const shops = Shops.chain([north, south], told, {
			machine: new Machine(),
			now: () => clock,
			start: (options, machine) => {
				if (options.name !== 'north') return startServices(options, machine);
				tries += 1;
				return broken ? Promise.reject(new Error('its disk is gone')) : startServices(options, machine);
			}
		});
		await shops.openAll();
		expect(shut).toEqual(['north: its disk is gone']);
		expect(opened).toEqual([south.options.origin]);
		const ask = () => shops.at(at('https://north.example.test/'));
		await expect(ask()).rejects.toBeInstanceOf(ShopIsShut);
		expect(tries).toBe(1);
		// Each time that it is tried is told.
		clock = 20_000;
		await expect(ask()).rejects.toBeInstanceOf(ShopIsShut);
		expect(shut).toHaveLength(2);
		broken = false;
		clock = 40_000;
		expect((await ask())?.origin).toBe(north.options.origin);
		expect([tries, shops.open.length]).toEqual([3, 2]);
		expect(opened).toEqual([south.options.origin, north.options.origin]);
		await shops.stop();
	});
});
