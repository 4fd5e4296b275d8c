// Installs the packages when they are missing or older than the lock file. Needs nothing but Node and npm.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const STAMP = 'node_modules/.jaldi-installed';

export function installWhenNeeded() {
	const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
	if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
	console.log('Installing packages …');
	execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { stdio: 'inherit' });
	writeFileSync(STAMP, wanted);
}
