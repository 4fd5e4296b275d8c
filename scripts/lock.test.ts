import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';

it('every package of the lock file is held against a hash, and none says where it was fetched', () => {
	const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
		packages: Record<string, { integrity?: string; resolved?: string }>;
	};
	const all = Object.entries(packages).filter(([path]) => path !== '');
	expect(all.length).toBeGreaterThan(400);
	expect(all.filter(([, { integrity }]) => !integrity?.startsWith('sha')).map(([path]) => path)).toEqual([]);
	expect(all.filter(([, { resolved }]) => resolved !== undefined)).toEqual([]);
});
