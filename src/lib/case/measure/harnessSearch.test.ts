import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { wirePath } from '../../../../library/measurePoints';
import { HarnessSearch } from '../entries/harness-search/payload';
import { planSearch } from './harnessPlan';
import { notedOf, readsByPlace, searchAfter } from './harnessSearch';
import { OVER_RANGE, type MeterReading } from './reading';

const type = vehicleTypes.get('norvane-lichen');
if (!type) throw new Error('no norvane-lichen');
const path = wirePath(type, 'rear-left', 'feed');
const at = { position: 'rear-left', wire: 'feed', fault: 'open', path } as const;
const place = (node: string) => {
	const found = path.find((one) => one.node === node);
	if (!found) throw new Error(node);
	return found;
};
const next = (before: HarnessSearch[], node: string, reading: MeterReading | null, reads: 'good' | 'bad') =>
	searchAfter(
		at,
		notedOf(before),
		{ opened: before.at(-1)?.exposed ?? [], openedHere: before.at(-1)?.exposed ?? [] },
		{ place: place(node), minutes: 4, reading, reads }
	);

describe('a search along a wire', () => {
	it('narrows with every reading, and names the stretch once two neighbours enclose it', () => {
		const first = next([], 'X20.1:a', 12.1, 'good');
		expect(first).toMatchObject({ found: false, proves: [], implicates: ['harness'] });
		expect(first.readings[0]).toMatchObject({ text: '12.1 V', reads: 'good', minutes: 4 });
		const second = next([first], 'X20.1:b', 0.02, 'bad');
		expect(second.found).toBe(true);
		expect(second.says).toContain('in the plug itself: X20');
		expect(second.exposed).toEqual(['X20']);
		expect(HarnessSearch.parse(second)).toEqual(second);
	});

	it('says which two readings cannot both be right', () => {
		const bad = next([], 'X3.5:a', null, 'bad');
		const both = next([bad], 'X21.1:b', null, 'good');
		expect(both.contradiction).toMatch(/X21.*good, .*X3.*bad/);
	});

	it('takes what two people read at once, of one place the later word', () => {
		const [one, other] = [next([], 'X20.1:a', 12, 'good'), next([], 'X21.1:a', 0, 'bad')];
		const again = next([one], 'X20.1:a', 0, 'bad');
		expect(readsByPlace(notedOf([one, other, again]))).toEqual({ 'X20.1:a': 'bad', 'X21.1:a': 'bad' });
	});

	it('keeps over the range as a reading in words', () => {
		const { readings } = searchAfter(
			{ ...at, fault: 'short' },
			[],
			{ opened: [], openedHere: [] },
			{ place: place('X20.1:a'), minutes: 1, reading: OVER_RANGE, reads: 'good' }
		);
		expect(readings[0]?.text).toBe('over the range');
	});

	it('leads on to the place that the plan asks for', () => {
		const first = next([], 'X20.1:a', 12, 'good');
		const plan = planSearch(path, 'feed', 'open', readsByPlace(first.readings), first.exposed);
		expect(plan.next[0]?.point).not.toBe('X20.1:a');
	});
});
