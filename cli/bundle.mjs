// The sources of the command as plain JavaScript, put together anew where one of them has changed. Names of inner functions
// are not kept, as a loader would keep them: whole trials take half the time.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const KEPT = join(ROOT, 'node_modules/.cache/jaldi');
/** Sources with their state, and the folder that was made of them. */
const MADE_OF = join(KEPT, 'made-of.json');

/** @param {string} path */
const stateOf = (path) => {
	const found = statSync(join(ROOT, path), { throwIfNoEntry: false });
	return found ? `${found.size}/${found.mtimeMs}` : 'gone';
};

/** @returns {string | null} */
function stillFresh() {
	try {
		const { folder, sources } = JSON.parse(readFileSync(MADE_OF, 'utf8'));
		const changed = Object.entries(sources).some(([path, state]) => stateOf(path) !== state);
		return changed || !existsSync(join(KEPT, folder, 'main.js')) ? null : folder;
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

async function make() {
	const { build } = await import('esbuild');
	const { outputFiles, metafile } = await build({
		absWorkingDir: ROOT,
		entryPoints: ['cli/main.ts', 'cli/trialHelper.ts'],
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
	putInPlace(MADE_OF, (aside) => writeFileSync(aside, JSON.stringify({ folder, sources })));
	return folder;
}

/** Address of the module that has the command's `main`. */
export async function freshBundle() {
	const folder = stillFresh() ?? (await make());
	return pathToFileURL(join(KEPT, folder, 'main.js')).href;
}
