import { describe, expect, it } from 'vitest';
import { optionsFromEnvironment } from './serviceOptions';

const read = (env: Record<string, string>) =>
	optionsFromEnvironment({ JALDI_SECRET: 'x'.repeat(32), ...env });

describe('what a server is told', () => {
	it('is refused without a secret, or with one that can be guessed', () => {
		for (const secret of ['', 'short'])
			expect(() => optionsFromEnvironment({ JALDI_SECRET: secret })).toThrow('JALDI_SECRET');
	});

	it('never sends what a shop knows over an open line to another machine', () => {
		for (const address of [
			'http://db.example.test:8080',
			'ws://10.0.0.4',
			'HTTP://db.example.test',
			'http://127.0.0.1.example.test'
		])
			expect(() => read({ JALDI_DATABASE_URL: address })).toThrow('must be https:');
		for (const address of [
			'libsql://db.example.test',
			'https://db.example.test',
			'http://127.0.0.1:8080',
			'http://localhost:1',
			'file:data/jaldi.db'
		])
			expect(read({ JALDI_DATABASE_URL: address }).databaseUrl).toBe(address);
		expect(() =>
			read({ JALDI_BLOBS: 's3://evidence', JALDI_BLOBS_ENDPOINT: 'http://store.example.test' })
		).toThrow('JALDI_BLOBS_ENDPOINT');
	});

	it('is refused where a limit is mistyped', () => {
		for (const value of ['0', '-1', '3.5', 'many'])
			expect(() => read({ JALDI_REQUESTS_PER_MINUTE: value })).toThrow('whole number');
		expect(read({ JALDI_REQUESTS_PER_MINUTE: '5' }).requestsPerMinute).toBe(5);
	});
});
