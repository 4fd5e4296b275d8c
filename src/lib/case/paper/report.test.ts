import { describe, expect, it } from 'vitest';
import type { PayloadOf } from '../entries/entry';
import { CLOSED_UNPROVEN, projectCase } from '../progress/project';
import { leftOpen } from '../progress/signing';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { caseReport } from './report';

const opened = (typeId = 'brindle-marlow-16') => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId, name: 'it', plate: '' });
	return maker.listen();
};
const reportOf = ({ thread }: ThreadMaker) => caseReport(thread, projectCase(thread));
const step = (seen: Record<string, string>, name = 'Look at the fuse'): PayloadOf<'test-step'> => ({
	test: 'fuse',
	place: 'F14',
	name,
	station: 'measure',
	from: 'own',
	how: 'done',
	seen,
	because: '',
	minutes: null
});

describe('what a report says', () => {
	it('tells what was found good as well as what was found bad: both justify a part', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		maker.add('test-step', step({ 'fuse@F14': 'whole' }));
		maker.add('test-step', step({ 'meter:lead-feed@rear-left': 'high' }, 'The lead'));
		maker.add('test-step', step({}, 'Nothing seen'));
		maker.add('swap', {
			what: 'sensors',
			position: 'rear-left',
			with: 'rear-right',
			state: 'back',
			outcome: 'moved'
		} as PayloadOf<'swap'>);
		const report = reportOf(maker);
		expect(report.foundGood.map(({ title }) => title).join()).toContain('ook at the fuse');
		const bad = report.found.map(({ title }) => title).join();
		expect(bad).toContain('he lead');
		expect(bad).toMatch(/change places|swap|moved/i);
		expect(bad + report.foundGood.map(({ title }) => title).join()).not.toContain('Nothing seen');
	});

	it('says what stood open when it was closed unproven, before all cautions that whoever drives it has to know', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		const left = leftOpen(projectCase(maker.thread));
		maker.add('signature', {
			statement: 'The customer sells it.',
			verdict: CLOSED_UNPROVEN,
			outcome: 'unproven',
			left
		});
		const report = reportOf(maker);
		expect(report.signature?.left).toEqual(left);
		expect(report.cautions[0]).toMatch(/^The fault may still be there/);
		expect(report.verdict).toBe(CLOSED_UNPROVEN);
	});

	it('of a vehicle that tells by its lamp says what the lamp told, and nothing of modules', () => {
		const maker = opened('norvane-wold');
		expect(reportOf(maker)).toMatchObject({ byLamp: [], noCodes: 'Its lamp was not read.' });
		maker.add('lamp-read', {
			lamp: 'anti-lock',
			flashes: [{ onS: 0.3, offS: 0.3 }],
			groups: [2, 3],
			repeats: 3,
			confidence: 1,
			table: 'norvane-wold',
			meaning: 'rear left sensor'
		});
		expect(reportOf(maker).byLamp).toMatchObject([{ code: '2-3', now: 'told, and nothing is mended' }]);
	});

	it('says that no module had a code only of what was read', () => {
		const maker = opened();
		expect(reportOf(maker).noCodes).toBe('No module was read.');
		maker.scan([], { outcome: 'partial', stoppedBecause: 'It was stopped.' });
		expect(reportOf(maker).noCodes).toBe('Of the modules that were read none had a code.');
		maker.scan([]);
		expect(reportOf(maker).noCodes).toBe('No module had a code.');
	});
});
