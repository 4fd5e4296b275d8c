import { readFileSync } from 'node:fs';
import { validate } from 'dockerfile-utils';
import { describe, expect, it } from 'vitest';

const dockerfile = readFileSync('Dockerfile', 'utf8');

describe('the Dockerfile', () => {
	it('has nothing that its linter finds', () => {
		expect(validate(dockerfile)).toEqual([]);
		expect(validate(dockerfile.replace('EXPOSE 3000', 'EXPOSE three'))).not.toEqual([]);
	});

	it('runs as nobody in particular, on the Node that the project names, with the data in a volume', () => {
		expect(dockerfile).toMatch(/^USER node$/m);
		expect(dockerfile).toMatch(/^VOLUME \/srv\/jaldi\/data$/m);
		const { engines } = JSON.parse(readFileSync('package.json', 'utf8')) as { engines: { node: string } };
		const major = /\d+/.exec(engines.node)?.[0];
		for (const [, tag] of dockerfile.matchAll(/^FROM node:(\d+)/gm)) expect(tag).toBe(major);
	});
});
