import { readFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { z } from 'zod';
import { secretOf } from '../../care/secretOf.js';
import { optionsFromEnvironment, type ServiceOptions } from '../serviceOptions';

/** One shop of a chain and where it lies. */
export interface ShopOfChain {
	name: string;
	options: ServiceOptions;
}

const origin = z.url({ protocol: /^https?$/ }).refine((text) => new URL(text).origin === text, {
	error: 'Only protocol, host and port: no path, no slash at the end.'
});
const shopSchema = z.strictObject({
	name: z.string().regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'Small letters, digits and hyphens, 40 at most.'),
	origin,
	folder: z.string().min(1).optional(),
	database: z.string().min(1).optional()
});
const fileSchema = z.strictObject({ shops: z.array(shopSchema).min(1) });
type Listed = z.infer<typeof shopSchema>;

type Environment = Record<string, string | undefined>;

const textOf = (file: string): string | undefined => {
	try {
		return readFileSync(file, 'utf8').trim();
	} catch {
		return undefined;
	}
};

const refused = (what: string, cause: unknown): Error =>
	new Error(`JALDI_SHOPS: ${what}: ${cause instanceof Error ? cause.message : String(cause)}`, { cause });

/** A place that all shops are told of is for each of them a folder there with its name. */
const within = (place: string | undefined, name: string) =>
	place === undefined || place === '' ? undefined : `${place.replace(/\/+$/, '')}/${name}`;

function shopOf({ name, origin, folder, database }: Listed, beside: string, env: Environment): ShopOfChain {
	const data = resolve(beside, folder ?? name);
	const options = optionsFromEnvironment({
		...env,
		ORIGIN: origin,
		JALDI_SECRET: secretOf(data),
		JALDI_DATABASE_URL: database ?? `file:${join(data, 'jaldi.db')}`,
		JALDI_DATABASE_TOKEN: textOf(join(data, 'database-token')),
		JALDI_BLOBS: within(env.JALDI_BLOBS, name),
		JALDI_BACKUP_TO: within(env.JALDI_BACKUP_TO, name),
		JALDI_BACKUP_COPY_TO: within(env.JALDI_BACKUP_COPY_TO, name)
	});
	return { name, options: { ...options, name } };
}

/** Two shops that share a name, an address or a database would be one. */
function refuseTwice(shops: readonly ShopOfChain[]): void {
	const kinds: [string, (shop: ShopOfChain) => string][] = [
		['name', ({ name }) => name],
		['address', ({ options }) => new URL(options.origin).host],
		['database', ({ options }) => options.databaseUrl]
	];
	for (const [what, of] of kinds) {
		const seen = new Map<string, string>();
		for (const shop of shops) {
			const other = seen.get(of(shop));
			if (other !== undefined)
				throw new Error(`JALDI_SHOPS: ${other} and ${shop.name} have the same ${what}, ${of(shop)}.`);
			seen.set(of(shop), shop.name);
		}
	}
}

/**
 * The shops that a file lists. Each has a folder beside the file with its name, or where `folder` says, and in it its secret and
 * its database, unless that is at `database` (then its token is in `database-token`). Folders and secrets that are missing are made.
 *
 * @param env what holds for all of them: backups and samples go into a folder of each shop's name
 * @throws with a sentence where the file is none, or two of its shops would be one
 */
export function shopsInFile(file: string, env: Environment): ShopOfChain[] {
	let read: unknown;
	try {
		read = JSON.parse(readFileSync(file, 'utf8'));
	} catch (error) {
		throw refused(file, error);
	}
	const listed = fileSchema.safeParse(read);
	if (!listed.success) throw new Error(`JALDI_SHOPS: ${file}: ${z.prettifyError(listed.error)}`);
	const shops = listed.data.shops.map((shop) => {
		try {
			return shopOf(shop, dirname(resolve(file)), env);
		} catch (error) {
			throw refused(shop.name, error);
		}
	});
	refuseTwice(shops);
	return shops;
}

/**
 * The shop that a command is about: the only one, or that of the chain which `JALDI_SHOP` names.
 *
 * @throws with a sentence where it names none
 */
export function shopMeant(env: Environment): ServiceOptions {
	if (!env.JALDI_SHOPS) return optionsFromEnvironment(env);
	const shops = shopsInFile(env.JALDI_SHOPS, env);
	const meant = shops.find(({ name }) => name === env.JALDI_SHOP);
	if (!meant) throw new Error(`JALDI_SHOP must say which shop: ${shops.map(({ name }) => name).join(', ')}.`);
	return meant.options;
}
