import { openWords } from './openReason';
import { describe, expect, it } from 'vitest';
import { lampTables, lampMeaning } from '../../../../library/lampTables';
import { lampOpen, lampHistory } from './lampTold';
import { projectCase } from '../progress/project';
import { ThreadMaker } from '../thread/threads.fixture';

const table = lampTables.get('norvane-pedal');
if (!table) throw new Error('no table');

class LampThread extends ThreadMaker {
	opened(typeId = 'norvane-wold'): this {
		this.add('case-opened', {
			nickname: 'old pick-up',
			typeId,
			plate: null,
			linkAddress: '',
			benchPanel: ''
		} as never);
		return this.listen();
	}
	lamp(...groups: number[]): this {
		const meaning = table ? (lampMeaning(table, groups)?.words ?? '') : '';
		this.add('lamp-read', {
			lamp: 'anti-lock lamp',
			flashes: [{ onS: 0, offS: null }],
			groups,
			repeats: 2,
			confidence: 0.99,
			table: 'norvane-pedal',
			meaning
		});
		return this;
	}
	get says() {
		const { next, proven, verdict } = projectCase(this.thread);
		return { next: next?.title, page: next?.page ?? null, proven, verdict };
	}
}

describe('a vehicle that tells by its lamp alone', () => {
	it('is led from the lamp to the lamp', () => {
		const thread = new LampThread().opened();
		expect(thread.says).toMatchObject({ next: 'Read its codes by the lamp', page: 'lamp', proven: false });
		thread.lamp(2, 3);
		expect(thread.says.next).toBe('Measure at front right');
		thread.repair();
		expect(thread.says.next).toBe('Make it forget, then drive it');
		thread.drive();
		expect(thread.says).toMatchObject({ next: 'Read the lamp again', proven: false });
		thread.lamp(1, 2);
		expect(thread.says).toMatchObject({
			next: 'Ask a lead to sign',
			proven: true,
			verdict: 'Proven by its lamp'
		});
	});

	it.each<[string, (thread: LampThread) => LampThread, string | undefined]>([
		['not read', (t) => t, 'Its lamp has not been read.'],
		[
			'told, nothing mended',
			(t) => t.lamp(2, 3),
			'2-3, front right sensor, open or shorted: nothing has been mended.'
		],
		[
			'mended, not read',
			(t) => t.lamp(2, 3).repair().drive(),
			'Its lamp has not told since the repair that nothing is kept.'
		],
		[
			'told none, not driven',
			(t) => t.lamp(2, 3).repair().lamp(1, 2),
			'It has not been driven since the repair, before its lamp was read.'
		],
		[
			'driven after the reading',
			(t) => t.lamp(2, 3).repair().lamp(1, 2).drive(),
			'It has not been driven since the repair, before its lamp was read.'
		],
		[
			'told again after a drive',
			(t) => t.lamp(2, 3).repair().drive().lamp(2, 3),
			'Its lamp has not told since the repair that nothing is kept.'
		],
		[
			'told again after none',
			(t) => t.lamp(2, 3).repair().drive().lamp(1, 2).lamp(2, 3),
			'Its lamp has not told since the repair that nothing is kept.'
		],
		['no fault from the first', (t) => t.lamp(1, 2), undefined]
	])('open while %s', (_what, make, reason) => {
		expect(lampOpen(make(new LampThread().opened()).thread).map(openWords)[0]).toBe(reason);
	});

	it('what is told again after a drive is looked for again', () => {
		const thread = new LampThread().opened().lamp(2, 3).repair().drive().lamp(2, 3);
		expect(thread.says.next).toBe('Look again: 2-3 told again');
	});

	it('says nothing of a vehicle that has a link', () => {
		const thread = new LampThread().opened('hexley-drover').lamp(2, 3);
		expect(lampHistory(thread.thread)).toBeNull();
	});
});
