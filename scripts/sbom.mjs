// npm run -s sbom > jaldi.cdx.json: every package that Jaldi is made of, with its licence (CycloneDX), the same for the same lock file.
// npm run -s sbom -- --licences: how many packages there are of each licence, and which have none.
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

/**
 * @typedef {{ name: string, version: string, licenses?: { license?: { id?: string, name?: string }, expression?: string }[] }} Component
 * @typedef {{ bomFormat: string, serialNumber?: string, metadata: { timestamp?: string }, components: Component[] }} Bill
 */

/** @returns {Bill} from the lock file alone; what changes from one run to the next is left out */
export function bill() {
	const made = execFileSync(
		'npm',
		['sbom', '--sbom-format=cyclonedx', '--package-lock-only', '--loglevel=error'],
		{
			encoding: 'utf8',
			maxBuffer: 64 * 1024 * 1024
		}
	);
	const document = JSON.parse(made);
	delete document.serialNumber;
	delete document.metadata.timestamp;
	return document;
}

/** @param {Component} component */
export const licenceOf = ({ licenses = [] }) =>
	licenses.map(({ license, expression }) => expression ?? license?.id ?? license?.name ?? '').join(' AND ') ||
	'not said';

/** @param {Bill} document @returns {Map<string, string[]>} names of the packages of each licence, most used first */
export function byLicence({ components }) {
	/** @type {Map<string, string[]>} */
	const found = new Map();
	for (const component of components) {
		const licence = licenceOf(component);
		found.set(licence, [...(found.get(licence) ?? []), `${component.name}@${component.version}`]);
	}
	return new Map([...found].sort((a, b) => b[1].length - a[1].length));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
	const document = bill();
	if (process.argv.includes('--licences'))
		for (const [licence, packages] of byLicence(document))
			console.log(
				`${String(packages.length).padStart(5)}  ${licence}${licence === 'not said' ? `: ${packages.join(', ')}` : ''}`
			);
	else console.log(JSON.stringify(document, null, '\t'));
}
