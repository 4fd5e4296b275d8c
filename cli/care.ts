import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { backUp, type Backup } from '../src/lib/care/backUp';
import { databaseOf, fileOf } from '../src/lib/care/dataFolder';
import { fetchNewest, sendBackup } from '../src/lib/care/elsewhere';
import { examine, type Examination } from '../src/lib/care/examine';
import { restore as restoreFrom, type Restored } from '../src/lib/care/restore';
import { ok, type Result } from '../src/lib/core/result';
import { bucketPlace, guarded, namesBucket, type FileStore } from '../src/lib/objects/objectStore';
import { s3Files } from '../src/lib/objects/s3Store';
import {
	complain,
	DONE,
	NOT_UNDERSTOOD,
	readArguments,
	say,
	strong,
	WrongUsage,
	type Command
} from './command';

/** Where a server keeps a shop, where nobody has said. */
const USUAL_FOLDER = 'data';

/** The folder of `--data`, else of the database that the environment names, else the usual one. */
function folderOf(data: string | undefined): string {
	if (data !== undefined) return resolve(data);
	const url = process.env.JALDI_DATABASE_URL;
	if (url === undefined) return resolve(USUAL_FOLDER);
	const file = fileOf(url);
	if (file === null)
		throw new WrongUsage(`looks after a database on this machine, and JALDI_DATABASE_URL names another`);
	return dirname(resolve(file));
}

const megabytes = (bytes: number): string => `${(bytes / 1e6).toFixed(1)} MB`;
const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

function examinedWords({ integrity, cases, chains, schema, newest, problems }: Examination): string {
	const lines = [
		`${count(cases, 'case')}; ${count(chains.checked, 'thread')} gone through entry by entry`,
		`pages ${integrity === 'ok' ? 'sound' : 'damaged'}; brought up to date in ${schema} of ${newest} steps`
	];
	if (schema > 0 && schema < newest) lines.push('the rest is done when a server starts on it');
	return [
		...lines,
		problems.length === 0
			? strong('Nothing is wrong.')
			: `${strong(count(problems.length, 'problem'))}\n${problems.map((one) => `  ${one}`).join('\n')}`
	].join('\n');
}

/** `jaldi doctor [--data FOLDER] [--json]`: whether a shop's database is sound and its threads are as they were written. */
export const doctor: Command = async (args) => {
	const { values, positionals } = readArguments(args, { data: { type: 'string' } });
	if (positionals.length > 0) throw new WrongUsage(`"${positionals[0]}" has no place here`);
	const found = await examine(databaseOf(folderOf(values.data)));
	await say(values.json ? `${JSON.stringify(found)}\n` : `${examinedWords(found)}\n`);
	return found.problems.length === 0 ? DONE : NOT_UNDERSTOOD;
};

/** The store of `s3://bucket/prefix`; its address is where the server's own copies go, if that is told. */
function storeOf(place: string): FileStore {
	const endpoint = process.env.JALDI_BACKUP_COPY_TO_ENDPOINT;
	try {
		const name = 'JALDI_BACKUP_COPY_TO_ENDPOINT';
		return s3Files(bucketPlace(place, endpoint && guarded(name, endpoint), 'A place elsewhere'));
	} catch (error) {
		throw new WrongUsage(error instanceof Error ? error.message : String(error));
	}
}

/** Does something with a folder that is gone afterwards. */
async function aside<T>(work: (folder: string) => Promise<T>): Promise<T> {
	const folder = mkdtempSync(join(tmpdir(), 'jaldi-backup-'));
	try {
		return await work(folder);
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

type Kept = { now: Date; keep?: number };

/** Made here, opened and gone through, and then brought there. */
const backUpElsewhere = (data: string, place: string, { now, keep }: Kept): Promise<Result<Backup>> =>
	aside(async (folder) => {
		const store = storeOf(place);
		const made = await backUp(data, folder, { now });
		if (!made.ok) return made;
		const sent = await sendBackup(made.value.file, store, keep);
		if (!sent.ok) return sent;
		const { name, removed } = sent.value;
		return ok({ ...made.value, file: `${place.replace(/\/$/, '')}/${name}`, removed });
	});

const restoreElsewhere = (place: string, data: string): Promise<Result<Restored>> =>
	aside(async (folder) => {
		const fetched = await fetchNewest(storeOf(place), folder);
		if (!fetched.ok) return fetched;
		const done = await restoreFrom(fetched.value, data);
		return done.ok ? ok({ ...done.value, from: place }) : done;
	});

/** `jaldi backup [--data FOLDER] [--keep N] TO`: a copy of a shop while its server goes on working. */
export const backup: Command = async (args) => {
	const { values, positionals } = readArguments(args, { data: { type: 'string' }, keep: { type: 'string' } });
	const [to, more] = positionals;
	if (to === undefined || more !== undefined)
		throw new WrongUsage('expects one place: a new file, a folder that keeps several, or s3://bucket/prefix');
	const keep = values.keep === undefined ? undefined : Number(values.keep);
	if (keep !== undefined && !(Number.isInteger(keep) && keep >= 1))
		throw new WrongUsage(`--keep expects how many are kept, 1 or more, not "${values.keep}"`);
	const how = { now: new Date(), ...(keep === undefined ? {} : { keep }) };
	const folder = folderOf(values.data);
	const done = await (namesBucket(to) ? backUpElsewhere(folder, to, how) : backUp(folder, resolve(to), how));
	if (!done.ok) {
		complain(`jaldi backup: ${done.error}`);
		return NOT_UNDERSTOOD;
	}
	const { file, bytes, examined, removed } = done.value;
	if (values.json) await say(`${JSON.stringify(done.value)}\n`);
	else
		await say(
			`${file}: ${megabytes(bytes)}${removed.length > 0 ? `, ${count(removed.length, 'older one')} taken away` : ''}\n${examinedWords(examined)}\n`
		);
	// What is damaged is kept too; whoever asked has to know.
	return examined.problems.length === 0 ? DONE : NOT_UNDERSTOOD;
};

/** `jaldi restore FROM [--data FOLDER]`: a backup into an empty folder. */
export const restore: Command = async (args) => {
	const { values, positionals } = readArguments(args, { data: { type: 'string' } });
	const [from, more] = positionals;
	if (from === undefined || more !== undefined)
		throw new WrongUsage('expects one backup, a folder that keeps several, or s3://bucket/prefix');
	const folder = folderOf(values.data);
	const done = await (namesBucket(from)
		? restoreElsewhere(from, folder)
		: restoreFrom(resolve(from), folder));
	if (!done.ok) {
		complain(`jaldi restore: ${done.error}`);
		return NOT_UNDERSTOOD;
	}
	const { file, examined } = done.value;
	if (values.json) await say(`${JSON.stringify(done.value)}\n`);
	else await say(`${done.value.from} is now ${file}\n${examinedWords(examined)}\nEverybody signs in anew.\n`);
	return DONE;
};
