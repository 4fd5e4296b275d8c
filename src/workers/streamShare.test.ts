import { afterEach, describe, expect, it, vi } from 'vitest';
import { SharedStream, streamAddress, type StreamNews } from './streamShare';

/** A line that says what the test has it say. */
class Line extends EventTarget {
	static newest: Line;
	constructor(readonly url: string) {
		super();
		Line.newest = this;
	}
	close() {}
	say(name: string, caseId: string, value: unknown) {
		this.dispatchEvent(new MessageEvent(name, { data: JSON.stringify({ case: caseId, value }) }));
	}
}
afterEach(() => void vi.unstubAllGlobals());

describe('the one stream of a browser', () => {
	it('asks for every case once, whatever its tabs wish and in whatever order', () => {
		const wishes = [
			{ caseId: 'B', live: 'none' },
			{ caseId: 'A', live: 'recent' },
			{ caseId: 'B', live: 'whole' },
			{ caseId: 'A', live: 'none' }
		] as const;
		expect(streamAddress(wishes)).toBe('/stream?case=A&case=B&live=A&whole=B');
		expect(streamAddress([...wishes].reverse())).toBe(streamAddress(wishes));
	});

	it('tells whoever comes later how a case stands, as it was last told', () => {
		vi.stubGlobal('EventSource', Line);
		const told: StreamNews[] = [];
		const stream = new SharedStream((news) => told.push(news));
		stream.follow([{ caseId: 'A', live: 'recent' }]);
		Line.newest.say('head', 'A', 3);
		Line.newest.say('next', 'A', '3:k');
		Line.newest.say('rows', 'A', [[0, 1]]);
		Line.newest.say('head', 'A', 4);
		expect(told).toHaveLength(4);
		expect(stream.standing('A')).toEqual([
			{ name: 'head', caseId: 'A', value: 4 },
			{ name: 'next', caseId: 'A', value: '3:k' }
		]);
		expect(stream.standing('B')).toEqual([]);
		// Another stream says it all anew.
		stream.follow([{ caseId: 'B', live: 'none' }]);
		expect(stream.standing('A')).toEqual([]);
	});

	it('is none where nobody wishes anything', () => expect(streamAddress([])).toBeNull());
});
