import { openWords } from '../codes/openReason';
import { describe, expect, it } from 'vitest';
import type { PayloadOf } from '../entries/entry';
import { fittingLacks } from '../entries/fitting/lacks';
import { lastFittings } from './fittings';
import { projectCase } from '../progress/project';
import { standing } from '../thread/thread';
import { ThreadMaker } from '../thread/threads.fixture';

const step = (change: Partial<PayloadOf<'fitting'>['steps'][number]>) => ({
	id: 'bolt',
	words: 'Sensor bolt',
	state: 'done' as const,
	value: 8,
	unit: 'N·m',
	within: true,
	note: '',
	...change
});
const fitting = (
	steps: PayloadOf<'fitting'>['steps'],
	part: Partial<PayloadOf<'fitting'>['part']> = {}
): PayloadOf<'fitting'> => ({
	sheet: 'sensor',
	name: 'Wheel speed sensor',
	place: 'rear-left',
	acknowledged: ['stands'],
	part: { number: '1', fits: 'yes', missing: [], damage: '', photos: [], ...part },
	steps
});

describe('a sheet that was worked through', () => {
	it.each<[string, PayloadOf<'fitting'>, string[]]>([
		['all well', fitting([step({})]), []],
		['left out with a reason', fitting([step({ state: 'left-out', value: null, within: null })]), []],
		['not done', fitting([step({ state: 'open', value: null, within: null })]), ['Sensor bolt: not done']],
		['drawn wrong', fitting([step({ value: 20, within: false })]), ['Sensor bolt: 20 N·m is not right']],
		['the wrong part', fitting([step({})], { fits: 'no' }), ['the part is not for this vehicle']],
		[
			'not whole',
			fitting([step({})], { missing: ['new bolt'], damage: 'cracked' }),
			['missing: new bolt', 'damage: cracked']
		]
	])('%s', (_, payload, lacks) => {
		expect(fittingLacks(payload)).toEqual(lacks);
	});

	it('keeps a case open while something is not right, until it is worked through again', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' });
		maker.listen().scan([]);
		maker.add('fitting', fitting([step({ value: 20, within: false })]));
		expect(projectCase(maker.thread).open.map(openWords)).toEqual([
			'Wheel speed sensor: Sensor bolt: 20 N·m is not right.'
		]);
		maker.add('fitting', fitting([step({})]));
		expect(projectCase(maker.thread).open.map(openWords)).toEqual([]);
		expect(lastFittings(standing(maker.thread))).toHaveLength(1);
	});

	it('a new fuse alone ends no search: its cause and its draw keep the case open until they are known', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'Marlow', plate: 'TP 16' });
		maker.listen().scan([]);
		maker.add('repair', {
			title: 'New fuse',
			position: null,
			parts: [],
			temporary: false,
			note: '',
			does: { kind: 'renew-fuse', place: 'F14' }
		});
		const why = [expect.stringMatching(/Why fuse F14 blew is not found/)];
		expect(projectCase(maker.thread).open.map(openWords)).toEqual(why);
		const fuse = (draw: number): PayloadOf<'fitting'> => ({
			...fitting([
				step({ id: 'cause', words: 'Cause found', value: null, within: null }),
				step({ id: 'draw', words: 'Draw', value: draw, unit: '% of its rating', within: draw <= 75 })
			]),
			sheet: 'fuse',
			name: 'Fuse',
			place: 'F14'
		});
		maker.add('fitting', { ...fuse(40), place: 'F2' });
		expect(projectCase(maker.thread).open.map(openWords)).toEqual(why);
		maker.add('fitting', fuse(96));
		expect(projectCase(maker.thread).open.map(openWords)).toEqual(expect.arrayContaining(why));
		maker.add('fitting', fuse(40));
		expect(projectCase(maker.thread).open.map(openWords)).toEqual([]);
	});
});
