import { describe, expect, it } from 'vitest';
import type { PayloadOf } from '../entries/entry';
import { Estimate } from '../entries/estimate/payload';
import { standing } from '../thread/thread';
import { ThreadMaker } from '../thread/threads.fixture';
import { agreementOf, isToAsk } from './agreed';

const SENSOR = { kind: 'renew-sensor', place: 'rear-left' };

class Desk extends ThreadMaker {
	estimated(minutes: number, change: Partial<PayloadOf<'estimate'>> = {}): string {
		const lines = [{ what: 'renew the sensor', minutes, repair: SENSOR }];
		const terms = { currency: 'EUR', ratePerHour: 9000, taxBasisPoints: 2000 };
		return this.add('estimate', { ...terms, lines, note: '', ...change }).id;
	}
	answered(estimate: string, change: Partial<PayloadOf<'estimate-answered'>> = {}): this {
		const said = { agrees: true, upTo: null, who: 'the owner', how: 'by phone' as const, words: '' };
		this.add('estimate-answered', { estimate, ...said, ...change });
		return this;
	}
	mended(does: { kind: string; place: string }): this {
		this.add('repair', { title: does.kind, position: null, parts: [], temporary: false, note: '', does });
		return this;
	}
	get state() {
		return agreementOf(standing(this.thread));
	}
}

describe('what the customer has agreed to', () => {
	it('is nothing where nobody said what it costs, and nobody has to call', () => {
		const desk = new Desk().mended(SENSOR);
		expect(desk.state).toMatchObject({ state: 'none', estimate: null, upTo: null });
		expect(isToAsk(desk.state)).toBe(false);
	});

	it('is to be asked until it is answered; a yes is for all of it', () => {
		const desk = new Desk();
		const id = desk.estimated(60);
		expect(desk.state).toMatchObject({ state: 'to-ask', estimate: { total: 10_800 } });
		expect(isToAsk(desk.state)).toBe(true);
		desk.answered(id);
		expect(desk.state).toMatchObject({ state: 'agreed', upTo: 10_800, answer: { who: 'the owner' } });
	});

	it('a part of it is less than is asked: ask again, or ask for less', () => {
		const desk = new Desk();
		desk.answered(desk.estimated(60), { upTo: 8000 });
		expect(desk.state.state).toBe('more');
		desk.estimated(40);
		expect(desk.state).toMatchObject({ state: 'agreed', answer: null, upTo: 8000 });
	});

	it('a dearer estimate asks again, and what was agreed before stays until then', () => {
		const desk = new Desk();
		desk.answered(desk.estimated(60));
		const dearer = desk.estimated(90);
		expect(desk.state).toMatchObject({ state: 'more', upTo: 10_800, estimate: { total: 16_200 } });
		desk.answered(dearer, { agrees: false });
		expect(desk.state).toMatchObject({ state: 'refused', upTo: 10_800 });
		desk.answered(dearer);
		expect(desk.state).toMatchObject({ state: 'agreed', upTo: 16_200 });
	});

	it('a repair that no agreed estimate has asks again', () => {
		const desk = new Desk();
		desk.answered(desk.estimated(60)).mended(SENSOR);
		expect(desk.state.state).toBe('agreed');
		desk.mended({ kind: 'renew-hub', place: 'rear-left' });
		expect(desk.state).toMatchObject({ state: 'more', beyond: ['renew-hub'] });
	});

	it('another currency is another sum, whatever its number', () => {
		const desk = new Desk();
		desk.answered(desk.estimated(60));
		desk.estimated(1, { currency: 'KWD' });
		expect(desk.state.state).toBe('more');
	});

	it('an answer to an estimate that is not there agrees to nothing', () => {
		const desk = new Desk();
		desk.estimated(60);
		desk.answered('01JE0000000000000000000009');
		expect(desk.state.state).toBe('to-ask');
	});
});

describe('an estimate', () => {
	const one = { currency: 'EUR', ratePerHour: 1_000_000_000, taxBasisPoints: 10_000, note: '' };

	it('of more than can be added up exactly is refused, with what to look at', () => {
		const lines = [{ what: 'a slip of the finger', minutes: 60_000 }];
		expect(Estimate.safeParse({ ...one, lines }).error?.issues[0]?.message).toContain(
			'more than any work costs'
		);
		expect(Estimate.safeParse({ ...one, lines: [{ what: 'all of it', minutes: 60 }] }).success).toBe(true);
	});
});
