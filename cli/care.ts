import { dirname, resolve } from 'node:path';
import { backUp } from '../src/lib/care/backUp';
import { databaseOf, fileOf } from '../src/lib/care/dataFolder';
import { examine, type Examination } from '../src/lib/care/examine';
import { restore as restoreFrom } from '../src/lib/care/restore';
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

/** `jaldi backup [--data FOLDER] [--keep N] TO`: a copy of a shop while its server goes on working. */
export const backup: Command = async (args) => {
	const { values, positionals } = readArguments(args, { data: { type: 'string' }, keep: { type: 'string' } });
	const [to, more] = positionals;
	if (to === undefined || more !== undefined)
		throw new WrongUsage('expects one place: a new file, or a folder that keeps several');
	const keep = values.keep === undefined ? undefined : Number(values.keep);
	if (keep !== undefined && !(Number.isInteger(keep) && keep >= 1))
		throw new WrongUsage(`--keep expects how many are kept, 1 or more, not "${values.keep}"`);
	const done = await backUp(folderOf(values.data), resolve(to), {
		now: new Date(),
		...(keep === undefined ? {} : { keep })
	});
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
		throw new WrongUsage('expects one backup, or a folder that keeps several');
	const done = await restoreFrom(resolve(from), folderOf(values.data));
	if (!done.ok) {
		complain(`jaldi restore: ${done.error}`);
		return NOT_UNDERSTOOD;
	}
	const { file, examined } = done.value;
	if (values.json) await say(`${JSON.stringify(done.value)}\n`);
	else await say(`${done.value.from} is now ${file}\n${examinedWords(examined)}\nEverybody signs in anew.\n`);
	return DONE;
};
