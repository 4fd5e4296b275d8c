import { describe, expect, it } from 'vitest';
import type { PayloadOf } from '../entries/entry';
import { CLOSED_UNPROVEN, projectCase } from '../progress/project';
import { leftOpen } from '../progress/signing';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
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

describe('what papers owe to whoever reads them', () => {
	const fitted = (maker: ThreadMaker) =>
		maker.add('repair', {
			title: 'Sensor renewed',
			position: 'rear-left',
			parts: [{ name: 'sensor', number: '', grade: 'maker’s own' }],
			temporary: false,
			note: ''
		});

	it('say where a part was fitted before anything was measured', () => {
		const blind = opened();
		fitted(blind);
		expect(reportOf(blind).repairs[0]?.unmeasured).toBe(true);
		const elsewhere = opened();
		elsewhere.add('test-step', { ...step({ 'meter:lead-feed@rear-right': 'in' }), place: 'rear-right' });
		fitted(elsewhere);
		expect(reportOf(elsewhere).repairs[0]?.unmeasured).toBe(true);
		const measured = opened();
		measured.add('test-step', { ...step({ 'meter:lead-feed@rear-left': 'high' }), place: 'rear-left' });
		fitted(measured);
		// What is measured afterwards justifies nothing that was done before.
		expect(reportOf(measured).repairs[0]?.unmeasured).toBe(false);
		const after = opened();
		fitted(after);
		after.add('test-step', { ...step({ 'meter:lead-feed@rear-left': 'in' }), place: 'rear-left' });
		expect(reportOf(after).repairs[0]?.unmeasured).toBe(true);
	});

	it('have number and odometer from the vehicle itself where nobody read them off it, and say so', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'it', plate: '' });
		expect(reportOf(maker).vehicle).toBeNull();
		maker.scan([], { vin: '11111111111111111', odometerKm: 1234.6 });
		expect(reportOf(maker).vehicle).toEqual({
			vin: '11111111111111111',
			odometerKm: 1235,
			toldByItself: true
		});
		maker.listen();
		expect(reportOf(maker).vehicle).toMatchObject({ odometerKm: 10, toldByItself: false });
	});

	it('tell the owner what tests found, each once, and nothing of what modules say of each other', () => {
		const maker = opened();
		maker.scan([[BRAKE, OPEN, 0x2f]], {}, [CLUSTER]);
		maker.add('test-step', step({ 'meter:lead-feed@rear-left': 'high' }, 'The lead'));
		maker.add('test-step', step({ 'meter:lead-feed@rear-left': 'high' }, 'The lead'));
		maker.add('test-step', step({ 'fuse@F14': 'whole' }));
		const report = reportOf(maker);
		expect(report.found.length).toBeGreaterThan(2);
		expect(report.foundPlain).toHaveLength(1);
		expect(report.foundPlain[0]).toMatch(/^The lead.*[^.]\.$/);
	});

	it('have what was asked, line by line, and what the customer said', () => {
		const maker = opened();
		expect(reportOf(maker).cost).toBeNull();
		const estimate = maker.add('estimate', {
			currency: 'EUR',
			ratePerHour: 8400,
			taxBasisPoints: 2100,
			lines: [
				{ what: 'Sensor renewed', minutes: 35 },
				{ what: 'Sensor', amount: 6490 }
			],
			note: 'Until Friday.'
		});
		expect(reportOf(maker).cost).toEqual({
			lines: [
				{ what: 'Sensor renewed (35 min)', amount: '€49.00' },
				{ what: 'Sensor', amount: '€64.90' }
			],
			sums: [
				{ what: 'Without tax', amount: '€113.90' },
				{ what: 'Tax, 21 %', amount: '€23.92' }
			],
			total: '€137.82',
			said: 'Nobody has agreed to it yet. Until Friday.'
		});
		const said = { estimate: estimate.id, who: 'the owner', how: 'by phone' as const, words: '' };
		maker.add('estimate-answered', { ...said, agrees: true, upTo: 10_000 });
		expect(reportOf(maker).cost?.said).toBe(
			'The owner, by phone: yes, up to €100.00. It is more than was agreed to (€100.00). Until Friday.'
		);
		maker.add('estimate-answered', { ...said, agrees: false, upTo: null });
		expect(reportOf(maker).cost?.said).toBe('The owner, by phone: no. Until Friday.');
	});
});
