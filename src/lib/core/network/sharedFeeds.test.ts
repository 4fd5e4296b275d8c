import { describe, expect, it } from 'vitest';
import { sharedFeeds, type Feed } from './sharedFeeds';

const fuse = (name: string): Feed => ({ kind: 'fuse', name, where: 'fuse box' });
const splice = (name: string): Feed => ({ kind: 'splice', name, where: 'kick panel' });
const segment: Feed = { kind: 'segment', name: 'chassis', where: 'from the gateway' };
const module = (name: string, answered: boolean, ...suppliedBy: Feed[]) => ({ name, answered, suppliedBy });

describe('what silent modules share', () => {
	it('the feed that explains every silence and no answer comes first', () => {
		const shared = sharedFeeds([
			module('brake', true, fuse('F1'), segment),
			module('steering', false, fuse('F2'), segment, splice('S7')),
			module('cluster', false, fuse('F3'), segment, splice('S7'))
		]);
		expect(shared[0]).toEqual({ feed: splice('S7'), silent: ['steering', 'cluster'], answering: [] });
		expect(shared.at(-1)).toEqual({ feed: segment, silent: ['steering', 'cluster'], answering: ['brake'] });
	});

	it('of one silent module, what only it hangs on comes before what works for others', () => {
		const shared = sharedFeeds([
			module('brake', true, fuse('F1')),
			module('cluster', false, fuse('F1'), splice('S7'))
		]);
		expect(shared.map((s) => s.feed.name)).toEqual(['S7', 'F1']);
	});

	it('where all answer there is nothing to explain', () => {
		expect(sharedFeeds([module('brake', true, segment)])).toEqual([]);
	});

	it('a fuse and a splice of the same name are two things', () => {
		expect(sharedFeeds([module('cluster', false, fuse('A'), splice('A'))])).toHaveLength(2);
	});
});
