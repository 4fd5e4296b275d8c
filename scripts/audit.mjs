// npm run audit: what is known against the packages that are used. Ends with 1 only where something was found; where the registry
// cannot be asked it says so.
import { spawnSync } from 'node:child_process';

const MOST_MS = 90_000;
const { stdout } = spawnSync('npm', ['audit', '--json', '--loglevel=error'], {
	encoding: 'utf8',
	timeout: MOST_MS,
	maxBuffer: 64 * 1024 * 1024
});

/** @returns {{ severity: string, name: string }[] | null} null = nobody could be asked */
function found() {
	try {
		const said = JSON.parse(stdout ?? '');
		return said.vulnerabilities ? Object.values(said.vulnerabilities) : null;
	} catch {
		return null;
	}
}

const known = found();
if (known === null)
	console.log('What is known against packages was not looked up: this registry cannot be asked.');
else if (known.length === 0) console.log('Nothing is known against the packages that are used.');
else {
	for (const { severity, name } of known) console.log(`${severity}: ${name}`);
	console.log('Look at them with "npm audit", and bring them up to date.');
	process.exitCode = 1;
}
