// Sources as plain JavaScript, put together anew where one of them has changed: of the command, and of the bench, which measures
// what ships. Names of inner functions are not kept, as a loader would keep them: whole trials take half the time.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const KEPT = join(ROOT, 'node_modules/.cache/jaldi');
/** What is put together, each with the module that has its `main` first. */
const ENTRIES = {
	main: ['cli/main.ts', 'cli/trialHelper.ts'],
	bench: ['scripts/bench.ts']
};
/** @typedef {keyof typeof ENTRIES} Name */
/** @param {Name} name sources with their state, and the folder that was made of them */
const madeOf = (name) => join(KEPT, `made-of-${name}.json`);

/** @param {string} path */
const stateOf = (path) => {
	const found = statSync(join(ROOT, path), { throwIfNoEntry: false });
	return found ? `${found.size}/${found.mtimeMs}` : 'gone';
};

/**
 * @param {Name} name
 * @returns {string | null}
 */
function stillFresh(name) {
	try {
		const { folder, sources } = JSON.parse(readFileSync(madeOf(name), 'utf8'));
		const changed = Object.entries(sources).some(([path, state]) => stateOf(path) !== state);
		return changed || !existsSync(join(KEPT, folder, `${name}.js`)) ? null : folder;
	} catch {
		// Never made, or cut off while it was written: made anew.
		return null;
	}
}

/**
 * Several commands may be started at once: each writes aside and then gives it its name.
 *
 * @param {string} path
 * @param {(aside: string) => void} write
 */
function putInPlace(path, write) {
	const aside = `${path}.${process.pid}`;
	write(aside);
	try {
		renameSync(aside, path);
	} catch (error) {
		// Another one was first with the same.
		rmSync(aside, { recursive: true, force: true });
		if (!existsSync(path)) throw error;
	}
}

/** @param {Name} name */
async function make(name) {
	const { build } = await import('esbuild');
	const { outputFiles, metafile } = await build({
		absWorkingDir: ROOT,
		entryPoints: ENTRIES[name],
		outdir: KEPT,
		bundle: true,
		splitting: true,
		write: false,
		metafile: true,
		platform: 'node',
		format: 'esm',
		target: 'node20',
		packages: 'external',
		// The project's own settings reach for files that only a build makes.
		tsconfigRaw: { compilerOptions: { target: 'es2022' } }
	});
	const hash = createHash('sha256');
	for (const { path, contents } of outputFiles) hash.update(path).update(contents);
	const folder = hash.digest('hex').slice(0, 16);
	mkdirSync(KEPT, { recursive: true });
	putInPlace(join(KEPT, folder), (aside) => {
		mkdirSync(aside, { recursive: true });
		for (const { path, contents } of outputFiles)
			writeFileSync(join(aside, path.slice(KEPT.length + 1)), contents);
	});
	const sources = Object.fromEntries(Object.keys(metafile.inputs).map((path) => [path, stateOf(path)]));
	putInPlace(madeOf(name), (aside) => writeFileSync(aside, JSON.stringify({ folder, sources })));
	return folder;
}

/**
 * Address of the module that has the `main` of what is asked for.
 * @param {Name} name
 */
export async function freshBundle(name = 'main') {
	const folder = stillFresh(name) ?? (await make(name));
	return pathToFileURL(join(KEPT, folder, `${name}.js`)).href;
}
