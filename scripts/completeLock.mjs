// npm run lock: writes package-lock.json anew and completes it.
//
// A registry mirror need not hold the builds of native packages for every platform. npm then leaves those optional
// packages out of the lock file, and `npm ci` refuses the result everywhere. They are written in by name, version and
// platform: `npm ci` passes over what is not for its own platform, and fetches what is.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';

const LOCK = 'package-lock.json';
const SYSTEMS = [
	'android',
	'darwin',
	'freebsd',
	'linux',
	'netbsd',
	'openbsd',
	'openharmony',
	'sunos',
	'aix',
	'win32'
];
const PROCESSORS = {
	arm64: 'arm64',
	x64: 'x64',
	ia32: 'ia32',
	arm: 'arm',
	ppc64: 'ppc64',
	riscv64: 'riscv64',
	s390x: 's390x',
	loong64: 'loong64',
	mips64el: 'mips64el',
	wasm32: 'wasm32'
};

/**
 * Platform of a native package, read from its name: `@scope/thing-win32-x64-msvc` → win32, x64. A name that tells no
 * system (WebAssembly builds) gets a processor no machine has, so that nobody tries to fetch it.
 * @param {string} name
 */
function platformOf(name) {
	const words = name.split(/[-/]/);
	const system = SYSTEMS.find((word) => words.includes(word));
	const processor = Object.entries(PROCESSORS)
		.sort(([a], [b]) => b.length - a.length)
		.find(([word]) => words.includes(word));
	return { ...(system && { os: [system] }), cpu: [processor?.[1] ?? 'wasm32'] };
}

/**
 * Whether a package at `path` would find `name`, as Node looks for it.
 * @param {Record<string, unknown>} packages
 * @param {string} path
 * @param {string} name
 */
function finds(packages, path, name) {
	for (let at = path; ; at = at.slice(0, Math.max(0, at.lastIndexOf('/node_modules/')))) {
		if (packages[`${at}${at ? '/' : ''}node_modules/${name}`]) return true;
		if (at === '' || !at.includes('node_modules/')) return false;
		if (!at.includes('/node_modules/')) return Boolean(packages[`node_modules/${name}`]);
	}
}

/** Writes in the hash of every package that has none yet, as the registry tells it: what is fetched is held against it. */
async function addIntegrity() {
	const configured = execFileSync('npm', ['config', 'get', 'registry'], { encoding: 'utf8' }).trim();
	const registry = configured.endsWith('/') ? configured : `${configured}/`;
	const bare = Object.entries(packages).filter(([path, one]) => path !== '' && !one.integrity);
	for (const [path, one] of bare) {
		const name = one.name ?? path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);
		const answer = await fetch(registry + name.replace('/', '%2f'), {
			headers: { accept: 'application/vnd.npm.install-v1+json' }
		});
		const told = answer.ok ? (await answer.json()).versions?.[one.version]?.dist?.integrity : undefined;
		if (told) one.integrity = told;
		else console.log(`${name} ${one.version}: the registry tells no hash`);
	}
}

execFileSync('npm', ['install', '--package-lock-only', '--no-audit', '--no-fund'], { stdio: 'inherit' });
const lock = JSON.parse(readFileSync(LOCK, 'utf8'));
/** @type {Record<string, { version: string, name?: string, integrity?: string, optionalDependencies?: Record<string, string> }>} */
const packages = lock.packages;
let added = 0;
for (const [path, { optionalDependencies = {} }] of Object.entries(packages)) {
	for (const [name, version] of Object.entries(optionalDependencies)) {
		if (finds(packages, path, name) || !/^\d/.test(version)) continue;
		const taken = packages[`node_modules/${name}`];
		const place = taken ? `${path}/node_modules/${name}` : `node_modules/${name}`;
		Object.assign(packages, { [place]: { version, ...platformOf(name), optional: true } });
		added += 1;
	}
}
await addIntegrity();
lock.packages = Object.fromEntries(Object.entries(packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(LOCK, `${JSON.stringify(lock, null, '\t')}\n`);
console.log(`${added} packages for other platforms written into ${LOCK}`);
