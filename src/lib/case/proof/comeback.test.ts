import { describe, expect, it } from 'vitest';
import { comebackOf, comebackStart } from './comeback';
import { mayNotSign } from '../progress/signing';
import { projectCase } from '../progress/project';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

function proven(): ThreadMaker {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'minibus', plate: '' });
	maker.listen();
	maker.scan([[BRAKE, OPEN, 0x2f]]);
	maker.add('repair', {
		title: 'Sensor renewed',
		position: 'rear-left',
		parts: [{ name: 'wheel speed sensor', number: '1', grade: 'branded' }],
		temporary: false,
		note: ''
	});
	maker.clear().cycleKey().lamps();
	maker.scan([[BRAKE, OPEN, 0]]);
	return maker;
}

describe('a case that comes back', () => {
	it('begins with what was done then, as work that is not proven', () => {
		const { thread } = proven();
		const start = comebackStart(thread, 'TP-0407', 'Tern Point Works');
		expect(start?.opened.comebackOf).toEqual({
			caseId: '01JC0000000000000000000000',
			number: 'TP-0407',
			lastHash: thread.at(-1)?.hash
		});
		expect(start?.works.map(({ part, grade }) => `${part} (${grade})`)).toEqual([
			'Sensor renewed, rear left (branded)',
			'wheel speed sensor, rear left (branded)'
		]);
		// It came back: that is said of the repair, at its wheel.
		expect(start?.works[0]).toMatchObject({ position: 'rear-left', stayed: true, seen: true });
		const again = new ThreadMaker();
		again.add('case-opened', start!.opened);
		expect(comebackOf(again.thread)?.number).toBe('TP-0407');
		expect(comebackOf(thread)).toBeNull();
	});

	it('a thread that was never opened has none', () => {
		expect(comebackStart([], 'TP-1', 'x')).toBeNull();
	});
});

describe('who may sign', () => {
	it('not whoever did the last repair, unless the shop allows it; not while anything is open; not twice', () => {
		const maker = proven();
		const refusal = (lead: string, own = false) => mayNotSign(projectCase(maker.thread), lead, own);
		expect(refusal('marit')).toBeNull();
		expect(refusal('ana')).toMatch(/your own/);
		expect(refusal('ana', true)).toBeNull();
		maker.add('signature', { statement: 'Released', verdict: 'Proven clear' }, { authorId: 'marit' });
		expect(refusal('marit')).toMatch(/signed already/);
		expect(mayNotSign(projectCase(new ThreadMaker().listen().thread), 'marit', false)).toMatch(/^Not yet: /);
	});
});
