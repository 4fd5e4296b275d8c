import { describe, expect, it } from 'vitest';
import { counts, floorPlan, nextOf, shown, type OpenCase } from './floorPlan';

const NOW = new Date('2026-12-01T10:00:00.000Z');
const at = (hour: number, day = 1) => new Date(Date.UTC(2026, 11, day, hour)).toISOString();
let number = 400;
const open = (id: string, more: Partial<OpenCase> = {}): OpenCase => ({
	id,
	number: (number += 1),
	nickname: id,
	names: '',
	minutes: { mean: 60, low: 40, high: 90 },
	dueAt: null,
	isBack: false,
	withId: null,
	waitsFor: null,
	toSign: false,
	toAsk: false,
	customerId: null,
	...more
});
const plan = (cases: OpenCase[], minutesLeft = 420, people = ['ana']) =>
	floorPlan(cases, { now: NOW, minutesLeft, people });
const ids = (cases: { id: string }[]) => cases.map(({ id }) => id);

describe('the floor by urgency', () => {
	it('has what is late or came back first, then what is promised first, then what is here longest', () => {
		const planned = plan([
			open('long here'),
			open('tomorrow', { dueAt: at(9, 2) }),
			open('today', { dueAt: at(15) }),
			open('late', { dueAt: at(9) }),
			open('came back', { isBack: true }),
			open('new')
		]);
		expect(ids(planned)).toEqual(['late', 'came back', 'today', 'tomorrow', 'long here', 'new']);
		expect(ids(planned.filter(({ late }) => late))).toEqual(['late']);
	});

	it('adds up what is finished today: each alone would be, together they are not', () => {
		const planned = plan([open('a'), open('b'), open('c'), open('d'), open('e')], 200);
		expect(planned.map(({ today }) => today)).toEqual(['yes', 'yes', 'perhaps', 'perhaps', 'no']);
		expect(
			plan([open('a'), open('b'), open('c'), open('d')], 200, ['ana', 'teo']).map(({ today }) => today)
		).toEqual(['yes', 'yes', 'yes', 'yes']);
	});

	it('counts on nobody who is not here: what they have waits for them', () => {
		const cases = [open('teo’s', { withId: 'teo' }), open('free')];
		const away = (notHere: string[]) =>
			floorPlan(cases, { now: NOW, minutesLeft: 100, people: ['ana', 'teo'], notHere }).map(
				({ today }) => today
			);
		expect(away([])).toEqual(['yes', 'yes']);
		expect(away(['teo'])).toEqual([null, 'yes']);
		expect(away(['teo', 'ana'])).toEqual([null, null]);
		const due = floorPlan([open('teo’s', { withId: 'teo', dueAt: at(15) })], {
			now: NOW,
			minutesLeft: 420,
			people: ['teo'],
			notHere: ['teo']
		});
		expect(ids(shown(due, 'call', null, 'urgency'))).toEqual(['teo’s']);
	});

	it('says nothing of a day that is over, of what rests and of what nobody knows', () => {
		expect(plan([open('a')], 0)[0]?.today).toBeNull();
		const resting = plan([
			open('sign', { toSign: true }),
			open('waits', { waitsFor: 'a part' }),
			open('x', { minutes: null })
		]);
		expect(resting.map(({ today }) => today)).toEqual([null, null, null]);
	});

	it('calls whoever will not have theirs in time, before it is late', () => {
		const planned = plan([
			open('first', { dueAt: at(11) }),
			open('second', { dueAt: at(11) }),
			open('asks', { waitsFor: 'the customer' }),
			open('tomorrow', { dueAt: at(11, 2) })
		]);
		expect(ids(shown(planned, 'call', null, 'urgency'))).toEqual(['second', 'asks']);
		expect(counts(planned, null)).toMatchObject({ all: 4, call: 2, late: 0, waits: 1, mine: 0 });
	});

	it('has next the most urgent that whoever looks can work on', () => {
		const planned = plan([
			open('waits', { dueAt: at(11), waitsFor: 'a part' }),
			open('teo’s', { dueAt: at(12), withId: 'teo' }),
			open('to sign', { dueAt: at(13), toSign: true }),
			open('free', { dueAt: at(14) }),
			open('ana’s', { dueAt: at(15), withId: 'ana' })
		]);
		expect(nextOf(planned, 'teo')?.id).toBe('teo’s');
		expect(nextOf(planned, 'ana')?.id).toBe('free');
		expect(ids(shown(planned, 'mine', 'ana', 'urgency'))).toEqual(['ana’s']);
		expect(nextOf(plan([open('a', { toSign: true })]), 'ana')).toBeNull();
	});

	it('is put in another order where somebody asks for it', () => {
		const planned = plan([open('van', { dueAt: at(15) }), open('bus'), open('lorry', { dueAt: at(11) })]);
		expect(ids(shown(planned, 'all', null, 'number'))).toEqual(['van', 'bus', 'lorry']);
		expect(ids(shown(planned, 'all', null, 'vehicle'))).toEqual(['bus', 'lorry', 'van']);
		expect(ids(shown(planned, 'all', null, 'promised'))).toEqual(['lorry', 'van', 'bus']);
	});
});
