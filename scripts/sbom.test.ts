import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { bill, byLicence, licenceOf } from './sbom.mjs';

/** Licences that would ask of whoever runs Jaldi to give away what is theirs. */
const ASKS_TOO_MUCH = /(^|[^L])A?GPL|SSPL|BUSL|Commons-Clause/;

describe('the list of what Jaldi is made of', () => {
	const document = bill();

	it('has every package that runs, with a licence, and none that asks too much', () => {
		const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
			dependencies: Record<string, string>;
		};
		for (const [name, version] of Object.entries(dependencies)) {
			const component = document.components.find((one) => one.name === name && one.version === version);
			expect(component && licenceOf(component), name).toMatch(/MIT|Apache|BSD|ISC/);
		}
		const asking = [...byLicence(document)].filter(([licence]) => ASKS_TOO_MUCH.test(licence));
		expect(asking).toEqual([]);
		expect(ASKS_TOO_MUCH.test('AGPL-3.0-only') && !ASKS_TOO_MUCH.test('LGPL-3.0-or-later')).toBe(true);
	});

	it('is the same for the same lock file', () => {
		expect(document.bomFormat).toBe('CycloneDX');
		expect(bill()).toEqual(document);
	});
});
