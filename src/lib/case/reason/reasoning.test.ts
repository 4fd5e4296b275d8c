import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseCodes } from '../codes/caseCodes';
import type { PayloadOf } from '../entries/entry';
import { standing } from '../thread/thread';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { proofGrid, testsFor } from './grid';
import { hypothesesOf, planOf } from './plan';
import { reasonAbout, repairsDone } from './reasoning';
import { explanationsShown } from './explanationView';
import { shownGrid } from './gridView';
import { mendingSteps, shownTest } from './reasonView';

const MINIBUS = vehicleTypes.get('brindle-marlow-16');
if (!MINIBUS) throw new Error('no minibus in the library');
const model = reasonModel(MINIBUS);

const openLead = () => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
	maker.listen().scan([
		[BRAKE, OPEN, 0x2f],
		[CLUSTER, 'C41581', 0x2f]
	]);
	return maker;
};
const about = ({ thread }: ThreadMaker) =>
	reasonAbout(standing(thread), model, {
		book: shippedBook,
		codes: caseCodes(thread),
		policy: PROVE_FIRST
	});
const step = (
	test: string,
	place: string,
	seen: Record<string, string>,
	how: PayloadOf<'test-step'>['how'] = 'done'
) => ({
	test,
	place,
	name: test,
	station: 'measure' as const,
	from: 'suggested' as const,
	how,
	seen,
	because: '',
	minutes: null
});
const cellOf = (maker: ThreadMaker, place: string, link: string) =>
	proofGrid(about(maker), null)
		.rows.find((row) => row.place === place)
		?.cells.find((cell) => cell.link === link);

describe('what follows from a thread', () => {
	it('a measurement that passes the lead proves it good, one that fails proves it bad', () => {
		const maker = openLead();
		expect(cellOf(maker, 'rear-left', 'harness')?.state).toBe('suspect');
		// That no code stands is no proof.
		expect(cellOf(maker, 'front-left', 'harness')?.state).toBe('not-tested');
		const bad = openLead();
		bad.add('test-step', step('meter:lead-feed', 'rear-left', { 'meter:lead-feed@rear-left': 'high' }));
		bad.add('test-step', step('look:pins', 'rear-left', { 'look:pins@rear-left': 'good' }));
		expect(cellOf(bad, 'rear-left', 'harness')?.p).toBeGreaterThan(0.8);
		const good = openLead();
		good.add('test-step', step('substitute', 'rear-left', { 'substitute@rear-left': 'follows' }));
		const before = cellOf(openLead(), 'rear-left', 'harness')?.p ?? 0;
		expect(cellOf(good, 'rear-left', 'harness')?.p).toBeLessThan(before / 1.5);
		expect(cellOf(good, 'rear-left', 'sensor')?.state).toMatch(/suspect|proven-bad/);
	});

	it('obeys who sets a test aside, and does not offer what was done', () => {
		const maker = openLead();
		const first = about(maker).decision.test?.test.id ?? '';
		const [kind = '', place = ''] = first.split('@');
		maker.add('test-step', step(kind, place, {}, 'cannot'));
		const next = about(maker);
		expect(next.candidates.some(({ id }) => id === first)).toBe(false);
		expect(next.setAside).toHaveLength(1);
		maker.add('test-step', step('substitute', 'rear-left', { 'substitute@rear-left': 'follows' }));
		expect(about(maker).candidates.some(({ id }) => id === 'substitute@rear-left')).toBe(false);
	});

	it('what was got to is free from then on', () => {
		const maker = openLead();
		const minutes = () => {
			const reasoning = about(maker);
			const test = reasoning.candidates.find(({ id }) => id === 'look:gap@rear-left');
			return test?.access.filter(({ id }) => !reasoning.accessGained.has(id)).map(({ id }) => id);
		};
		expect(minutes()).toEqual(['lifted', 'wheel:rear-left']);
		maker.add('test-step', step('look:ring', 'rear-left', { 'look:ring@rear-left': 'good' }));
		expect(minutes()).toEqual([]);
		// On the road the wheels are on again.
		maker.drive();
		expect(minutes()).toEqual(['lifted', 'wheel:rear-left']);
	});

	it('takes a repair by its choice, and never by its words', () => {
		const base = { title: '', position: null, parts: [], temporary: false, note: '' };
		const names = (payload: PayloadOf<'repair'>) =>
			[...repairsDone(payload, model)].map((index) => model.repairs[index]?.id).sort();
		expect(names({ ...base, title: 'x', does: { kind: 'renew-splice', place: 'S7' } })).toEqual([
			'renew-splice@S7'
		]);
		expect(names({ ...base, title: 'Lead renewed', position: 'rear-left' })).toEqual([]);
		expect(names({ ...base, title: 'Washed it' })).toEqual([]);
	});

	it('shows what a cell stands on, what would prove it otherwise, and what mending would come to', () => {
		const maker = openLead();
		const reasoning = about(maker);
		const grid = shownGrid(reasoning, standing(maker.thread));
		const cell = grid.rows
			.find(({ place }) => place === 'rear-left')
			?.cells.find(({ link }) => link === 'harness');
		expect(cell?.told[0]).toMatchObject({
			title: 'Read, all 2 modules',
			words: 'rear left: a code says open circuit',
			for: false
		});
		expect(cell?.otherwise.length).toBeGreaterThan(0);
		expect(
			testsFor(reasoning, { place: 'rear-left', link: 'gap' }).every(
				(id) => id.endsWith('@rear-left') || id.endsWith('@vehicle')
			)
		).toBe(true);
		const steps = mendingSteps(reasoning);
		const ended = steps.reduce((sum, { ends }) => sum + ends, 0);
		expect(ended).toBeGreaterThan(0.5);
		expect(ended).toBeLessThanOrEqual(1 + 1e-9);
		const [ranked] = reasoning.decision.ranked;
		const shown = ranked && shownTest(reasoning, ranked);
		expect(shown?.outcomes[0]?.means).toMatch(/^\d+ % rear left: /);
	});

	it('what a sheet shows to be left out is thought of, until it is worked through again', () => {
		const maker = openLead();
		maker.add('repair', {
			title: 'Renew the sensor',
			position: 'rear-left',
			parts: [],
			temporary: false,
			note: '',
			does: { kind: 'renew-sensor', place: 'rear-left' }
		});
		const sheet = (state: 'done' | 'left-out', missing: string[]): PayloadOf<'fitting'> => ({
			sheet: 'sensor',
			name: 'Wheel speed sensor',
			place: 'rear-left',
			acknowledged: ['lifted'],
			part: { number: '', fits: 'yes', missing, damage: '', photos: [] },
			steps: [
				{
					id: 'clips',
					words: 'Lead in every clip',
					state,
					value: null,
					unit: '',
					within: null,
					note: '2 of 5'
				}
			]
		});
		const chanceOf = (fault: string) => {
			const { belief, model: of } = about(maker);
			const at = of.faults.findIndex((one) => one.fault.id === fault && one.place === 'rear-left');
			return belief.present[at] ?? 0;
		};
		const before = chanceOf('lead-pulled-tight');
		maker.add('fitting', sheet('left-out', ['seal or O-ring']));
		expect(chanceOf('lead-pulled-tight')).toBeGreaterThan(0.1);
		expect(chanceOf('lead-pulled-tight')).toBeGreaterThan(before * 3);
		expect(chanceOf('gap-rust')).toBeGreaterThan(0.05);
		maker.add('fitting', sheet('done', []));
		expect(chanceOf('lead-pulled-tight')).toBeCloseTo(before, 6);
	});

	it('names what is left, its probabilities adding up', () => {
		const left = hypothesesOf(about(openLead()));
		expect(left.length).toBeGreaterThan(4);
		expect(left.reduce((sum, { probability }) => sum + probability, 0)).toBeLessThanOrEqual(1 + 1e-9);
		for (const [i, { probability }] of left.entries())
			expect(probability).toBeLessThanOrEqual(left[i - 1]?.probability ?? 1);
	});

	it('stops where a part is sure enough, and says how sure', () => {
		const maker = openLead();
		const seenThen: Record<string, string>[] = [
			{ 'meter:lead-feed@rear-left': 'high' },
			{ 'meter:lead-signal@rear-left': 'in' },
			{ 'look:pins@rear-left': 'good' },
			{ 'look:lead@rear-left': 'bad' },
			{ 'meter:feed-at-module@rear-left': 'in' },
			{ 'meter:feed-at-sensor@rear-left': 'low' },
			{ 'substitute@rear-left': 'nothing' }
		];
		for (const seen of seenThen) maker.add('test-step', step('look:lead', 'rear-left', seen));
		const plan = planOf(maker.thread);
		if (!plan.ok) throw new Error(plan.error);
		expect(plan.value.stop?.repair ?? plan.value.next[0]?.test).toMatch(/lead/);
		expect(plan.value.hypotheses[0]?.fault).toMatch(/^rear left: .*(lead|wire)/);
	});
});

describe('what the station says beside the odds', () => {
	it('one fault alone explains an open code and what follows from it', () => {
		const shown = explanationsShown(about(openLead()));
		expect(shown?.words).toBe('One fault alone explains all that was read.');
		expect(shown?.sets[0]?.words).toMatch(/^rear left: /);
		expect(shown?.sets[0]?.p).toBeGreaterThan(0.5);
	});

	const withCodes = (...codes: [string, string, number][]) => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
		maker.listen().scan(codes);
		return maker;
	};

	it('two open wheels need one fault: the plug that they share is likelier than two leads', () => {
		const maker = withCodes([BRAKE, OPEN, 0x2f], [BRAKE, '405013', 0x2f]);
		const shown = explanationsShown(about(maker));
		expect(shown?.words).toBe('One fault alone explains all that was read.');
		expect(shown?.sets[0]?.words).toMatch(/^plug X(3|20): /);
		const { belief, model: own, decision } = about(maker);
		const sumOf = (holds: (id: string) => boolean) =>
			own.faults.reduce((sum, { fault }, i) => sum + (holds(fault.id) ? (belief.present[i] ?? 0) : 0), 0);
		const shared = sumOf((id) => /^(shared-plug|wheel-cavities)-/.test(id));
		expect(shared).toBeGreaterThan(0.6);
		expect(decision.ranked.some(({ test }) => test.id.startsWith('shared-plug@X'))).toBe(true);
	});

	it('two wheels that fail in different ways need two faults', () => {
		const ring = '403038';
		const shown = explanationsShown(about(withCodes([BRAKE, OPEN, 0x2f], [BRAKE, ring, 0x2f])));
		expect(shown?.words).toBe('No single fault explains all that was read; two do.');
	});

	it('work by others makes what it leaves behind likelier', () => {
		const presentOf = (maker: ThreadMaker, id: string) => {
			const { belief, model: own } = about(maker);
			return belief.present[own.faults.findIndex((one) => one.id === id)] ?? NaN;
		};
		const worked = openLead();
		worked.add('prior-work', {
			works: [{ part: 'rear left', work: 'wheel-sensor', when: '', by: 'another shop', grade: 'unknown' }]
		} as never);
		expect(presentOf(worked, 'sensor-pin-pushed-back@rear-left')).toBeGreaterThan(
			2 * presentOf(openLead(), 'sensor-pin-pushed-back@rear-left')
		);
	});

	it('a code that another repair brought is laid at its door', () => {
		const maker = openLead();
		maker.add('test-step', step('look:pins', 'rear-left', { 'look:pins@rear-left': 'good' }));
		maker.add('test-step', step('look:lead', 'rear-left', { 'look:lead@rear-left': 'cut' }));
		const renewed = (kind: string) =>
			maker.add('repair', {
				title: 'Lead renewed',
				position: 'rear-left',
				parts: [],
				does: { kind, place: 'rear-left' }
			} as never);
		renewed('renew-lead');
		maker.add('test-step', step('look:pins', 'rear-left', { 'look:pins@rear-left': 'pushed-back' }));
		const { belief, model: own } = about(maker);
		const pin = own.faults.findIndex(({ id }) => id === 'sensor-pin-pushed-back@rear-left');
		expect(belief.madeByUs[pin]).toBeGreaterThan(0.05);
		expect(belief.madeByUs[pin]).toBeGreaterThan((belief.present[pin] ?? 1) / 2);
		const plan = planOf(maker.thread);
		if (!plan.ok) throw new Error(plan.error);
		expect(plan.value.hypotheses.map(({ fault }) => fault).join('\n')).toMatch(
			/pin .*\(left behind by our own repair\)$/m
		);
		// Once the plug is mended, the fault of our making is gone too.
		renewed('clean-sensor-plug');
		expect(about(maker).repairInduced.find(({ fault, from }) => fault === pin && from === 1)?.until).toBe(2);
	});

	it('a test about which people quarrel says what the others do, and its minutes', () => {
		const reasoning = about(openLead());
		const shown = reasoning.decision.ranked.flatMap((one) => shownTest(reasoning, one) ?? []);
		const feeds = shown.find(({ kind }) => kind === 'substitute');
		expect(feeds?.school).toMatch(/open both ends and measure the wires: meter: .*, \d+ min\.$/);
	});

	it('nothing is offered that a silent module would have to answer for', () => {
		const maker = new ThreadMaker();
		maker.add('case-opened', { vehicleId: 'v', typeId: MINIBUS.id, name: 'Marlow', plate: 'TP 16' });
		maker.listen().scan([], {}, [BRAKE]);
		const ids = about(maker).candidates.map(({ id }) => id);
		expect(ids).not.toContain('coding@brake');
		expect(ids).not.toContain('road@vehicle');
		expect(ids).toContain('meter:module-supply@brake');
	});

	it('a wiggle once more is asked about as the same sign', () => {
		const maker = openLead();
		maker.add('test-step', step('wiggle-lead', 'rear-left', { 'wiggle-lead@rear-left': 'steady' }));
		const reasoning = about(maker);
		const more = reasoning.candidates.find(({ id }) => id === 'wiggle-lead@rear-left');
		expect(more?.kind.name).toMatch(/once more$/);
		maker.add('test-step', step('wiggle-lead', 'rear-left', { 'wiggle-lead@rear-left': 'changes' }));
		expect(about(maker).observations.map(({ sign }) => sign)).toContain('wiggle-lead@rear-left~steady');
	});
});
