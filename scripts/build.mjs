// Builds the application when anything it is made of is newer than the last build.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const SOURCES = [
	'src',
	'library',
	'static',
	'package-lock.json',
	'svelte.config.js',
	'vite.config.ts',
	'vite.worker.config.ts'
];
const STAMP = 'build/.jaldi-built';

/**
 * @param {string} path
 * @returns {number} when the newest file below it was written, ms
 */
function newest(path) {
	const stat = statSync(path);
	if (!stat.isDirectory()) return stat.mtimeMs;
	return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

export function buildWhenStale() {
	if (existsSync(STAMP) && statSync(STAMP).mtimeMs >= Math.max(...SOURCES.map(newest))) return;
	console.log('Building …');
	const began = new Date();
	// The bundler talks at length about other people's packages: only a failure is worth reading.
	const built = spawnSync('npm', ['run', '--silent', 'build'], { encoding: 'utf8' });
	if (built.status !== 0) {
		console.error(built.stdout + built.stderr);
		throw new Error('The build failed; its words are above.');
	}
	writeFileSync(STAMP, '');
	// Whatever changed while it was being built makes it stale.
	utimesSync(STAMP, began, began);
}
