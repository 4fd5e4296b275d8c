import { describe, expect, it } from 'vitest';
import { readCaseFile, writeCaseFile } from './caseFile';
import { checkChain } from './hashChain';
import { ThreadMaker } from './threads.fixture';

describe('a case as a file', () => {
	it('comes back as it was written, its chain unbroken', () => {
		const maker = new ThreadMaker().listen();
		maker.scan([]);
		const read = readCaseFile(writeCaseFile(maker.thread));
		expect(read).toEqual({ ok: true, value: maker.thread });
		expect(read.ok && checkChain(read.value).intact).toBe(true);
	});

	it.each([
		['nothing of it is JSON', 'codes: none', /no JSON/],
		['another format', '{"format":"other","version":1,"entries":[{}]}', /format.*expected/],
		['no entry', '{"format":"jaldi-case","version":1,"entries":[]}', /entries/],
		['an entry that is none', '{"format":"jaldi-case","version":1,"entries":[{"kind":"tea"}]}', /entry 1/]
	])('refuses %s and says where', (_, text, words) => {
		const read = readCaseFile(text);
		expect(read.ok).toBe(false);
		expect(!read.ok && read.error).toMatch(words);
	});
});
