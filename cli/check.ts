import { checkBundle, unpackBundle } from '../src/lib/case/paper/bundle';
import { keyName, signerOf } from '../src/lib/case/paper/bundleSignature';
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
import { readWhole, UnreadableInput } from './openInput';

/** `jaldi check BUNDLE [--json]`: whether a case's bundle is as it was packed, with nothing but the file. */
export const check: Command = async (args) => {
	const { values, positionals } = readArguments(args, {});
	const [file, more] = positionals;
	if (file === undefined || more !== undefined)
		throw new WrongUsage('expects one bundle, such as TP-0407.zip');
	let zip: Uint8Array;
	try {
		zip = await readWhole(file);
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi check: ${error.message}`);
		return NOT_UNDERSTOOD;
	}
	const files = unpackBundle(zip);
	const checked = files.ok ? checkBundle(files.value) : files;
	if (!checked.ok) {
		complain(`jaldi check: ${file}: ${checked.error}; expected a case bundle (ZIP)`);
		return NOT_UNDERSTOOD;
	}
	const { entries, head, lastHash, files: count } = checked.value;
	const signer = await signerOf(files.ok ? files.value : new Map());
	const problems = [...checked.value.problems, ...(signer.ok ? [] : [signer.error])];
	const key = signer.ok ? signer.value : null;
	// A script that asks gets the answer without reading it.
	const status = problems.length === 0 ? DONE : NOT_UNDERSTOOD;
	if (values.json) {
		const result = {
			intact: problems.length === 0,
			case: head?.number ?? null,
			entries: entries.length,
			files: count,
			lastHash,
			signedWith: key,
			problems
		};
		await say(`${JSON.stringify(result)}\n`);
		return status;
	}
	const found =
		problems.length === 0
			? strong('as it was packed')
			: `${strong(problems.length === 1 ? 'changed in one place' : `changed in ${problems.length} places`)}\n${problems.map((one) => `  ${one}`).join('\n')}`;
	await say(
		`${head?.number ?? 'a case'}: ${entries.length} entries, ${count} files, ${found}\nlast entry ${lastHash.slice(0, 16)}, ${key === null ? 'not signed by any shop' : `signed with the key ${keyName(key)}`}\n`
	);
	return status;
};
