import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { bookOf, shippedBook, shippedPacks } from '../../../../library/codes';
import { faults } from '../../../../library/faults';
import { NOT_DESCRIBED } from '../../../../library/reason/notDescribed';
import { reasonModel } from '../../../../library/reason/model';
import { PROVE_FIRST } from '../../core/path/policy';
import { caseNumbering } from '../codes/caseNumbering';
import { caseCodes } from '../codes/caseCodes';
import { standing } from '../thread/thread';
import { oneCodeRead } from '../thread/oneCode.fixture';
import type { ThreadMaker } from '../thread/threads.fixture';
import { proofGrid } from './grid';
import { reasonAbout, type Reasoning } from './reasoning';

const AMBULANCE = vehicleTypes.get('norvane-heath');
if (!AMBULANCE) throw new Error('no ambulance in the library');
const model = reasonModel(AMBULANCE);
const FAILS = 0x2f;
const STORED = 0x2c;

const scanned = (role: string, dtc: string, status: number) => oneCodeRead(AMBULANCE, role, dtc, status);

const about = ({ thread }: ThreadMaker, book = shippedBook): Reasoning => {
	const numbering = caseNumbering(standing(thread), book);
	return reasonAbout(standing(thread), model, {
		book: numbering.book,
		numberingOpen: numbering.open,
		codes: caseCodes(thread, numbering.book),
		policy: PROVE_FIRST
	});
};
const sumOf = ({ belief }: Reasoning, which: (fault: { id: string; place: string }) => boolean): number =>
	model.faults.reduce(
		(sum, { fault, place }, i) => sum + (which({ id: fault.id, place }) ? (belief.present[i] ?? 0) : 0),
		0
	);
const notDescribed = (reasoning: Reasoning) => sumOf(reasoning, ({ id }) => id === NOT_DESCRIBED);

describe('what one code alone is worth', () => {
	it.each([
		['brake', '402013', 'pump'],
		['brake', '401013', 'valve'],
		['brake', '413114', 'pressure'],
		['brake', '416126', 'switch'],
		['yaw', '419629', 'yaw'],
		['steering-angle', '405154', 'steering angle'],
		['cluster', 'C12687', 'silence of another'],
		['brake', '404513', 'wheel circuit'],
		['brake', '40452F', 'ring'],
		['park-brake', '5F2013', 'unknown']
	])('%s %s (%s): no part, and room for what is not described', (role, dtc) => {
		for (const status of [FAILS, STORED]) {
			const reasoning = about(scanned(role, dtc, status));
			const { decision } = reasoning;
			const first = model.repairs[decision.mending[0]?.repair ?? -1];
			expect(decision.test !== null || first?.part !== true, `${dtc} ${status}`).toBe(true);
			expect(notDescribed(reasoning)).toBeGreaterThan(0.03);
			const grid = proofGrid(reasoning, null);
			for (const { cells } of [...grid.rows, ...grid.shared])
				for (const { state, place, link } of cells)
					expect(state, `${place} ${link} by ${dtc}`).not.toBe('proven-bad');
			for (const [i, { fault }] of model.faults.entries())
				if (fault.id !== NOT_DESCRIBED)
					expect(reasoning.belief.present[i] ?? 0, `${fault.id} by ${dtc}`).toBeLessThan(0.935);
		}
	});

	it('a code of a kind that no fault here sets leads to the general method', () => {
		const valve = about(scanned('brake', '401013', STORED));
		expect(notDescribed(valve)).toBeGreaterThan(0.8);
		expect(valve.decision.test).toBeNull();
		expect(model.repairs[valve.decision.mending[0]?.repair ?? -1]?.kind).toBe('general-method');
	});

	it('grows when readings fit nothing well', () => {
		const maker = scanned('brake', '404513', FAILS);
		const before = notDescribed(about(maker));
		for (const [test, seen] of [
			['meter:feed-at-sensor', 'in'],
			['scope-sensor', 'whole'],
			['scope-module', 'whole'],
			['substitute', 'follows'],
			['look:pins', 'good']
		] as const)
			maker.add('test-step', {
				test,
				place: 'rear-left',
				name: test,
				station: 'measure',
				from: 'suggested',
				how: 'done',
				seen: { [`${test}@rear-left`]: seen },
				because: '',
				minutes: null
			});
		expect(notDescribed(about(maker))).toBeGreaterThan(2 * before);
	});
});

describe('the status of a code is evidence', () => {
	const comesAndGoes = ({ id, place }: { id: string; place: string }) =>
		place === 'rear-left' &&
		(faults.get(id)?.when?.shaking !== undefined || faults.get(id)?.when?.everyKm !== undefined);

	it('an open circuit that fails standing still hardly comes and goes; one that is stored hardly stays', () => {
		const fails = about(scanned('brake', '404513', FAILS));
		const stored = about(scanned('brake', '404513', STORED));
		expect(sumOf(fails, comesAndGoes)).toBeLessThan(0.1);
		expect(sumOf(stored, comesAndGoes)).toBeGreaterThan(2 * sumOf(fails, comesAndGoes));
		const hard = ({ id, place }: { id: string; place: string }) =>
			place === 'rear-left' &&
			['sensor-dead', 'lead-open', 'lead-return-open', 'sensor-pin-pushed-back'].includes(id);
		expect(sumOf(fails, hard)).toBeGreaterThan(sumOf(stored, hard));
	});
});

describe('a code of two numberings', () => {
	/** As of a vehicle whose maker nobody here describes. */
	const standard = bookOf(shippedPacks.filter(({ maker }) => maker === null));
	const atWheel = (place: string) => (one: { place: string }) => one.place === place;

	it('is read both ways until one fact decides', () => {
		const maker = scanned('brake', '403513', FAILS);
		const open = about(maker, standard);
		expect(open.numbering.map(({ numbering }) => numbering)).toEqual(['circuit', 'table']);
		expect(open.numbering.reduce((sum, { p }) => sum + p, 0)).toBeCloseTo(1);
		expect(sumOf(open, atWheel('front-left'))).toBeGreaterThan(0.1);
		expect(sumOf(open, atWheel('front-right'))).toBeGreaterThan(0.1);

		maker.add('source-judged', {
			code: 'C0035',
			failureType: '13',
			supported: {
				packId: 'chassis-table',
				name: 'Chassis table',
				says: 'Front-right wheel speed sensor feed'
			},
			against: [],
			because: 'Turned by hand: the right one is dead.'
		});
		const decided = about(maker, standard);
		expect(decided.numbering).toEqual([]);
		expect(sumOf(decided, atWheel('front-right'))).toBeGreaterThan(
			10 * sumOf(decided, atWheel('front-left'))
		);
	});
});

describe('internal codes of a module', () => {
	const step = (maker: ThreadMaker, test: string, place: string, seen: Record<string, string>) =>
		maker.add('test-step', {
			test,
			place,
			name: test,
			station: 'measure',
			from: 'own',
			how: 'done',
			seen,
			because: '',
			minutes: 4
		});
	const next = (maker: ThreadMaker) => about(maker).decision.test?.test.id ?? null;
	const first = (maker: ThreadMaker) => {
		const one = model.repairs[about(maker).decision.mending[0]?.repair ?? -1];
		return one && `${one.kind}@${one.place}`;
	};
	// Numbers that no pack has: the kind of failure says what it is.
	it.each([
		['brake', '4F0049'],
		['yaw', '500141'],
		['cluster', '500247'],
		['brake', '455004']
	])(
		'%s %s: supply and ground under load, key off and read again, then the module and nothing else',
		(role, dtc) => {
			const maker = scanned(role, dtc, FAILS);
			expect(first(maker)).toBe(`renew-module@${role}`);
			expect(next(maker)).toBe(`meter:module-supply@${role}`);
			step(maker, 'meter:module-supply', role, { [`meter:module-supply@${role}`]: 'in' });
			expect(next(maker)).toBe(`meter:ground-drop@${role}`);
			step(maker, 'meter:ground-drop', role, { [`meter:ground-drop@${role}`]: 'in' });
			expect(next(maker)).toBe('recheck@vehicle');
			step(maker, 'recheck', 'vehicle', { [`own-back@${role}`]: 'yes' });
			expect(first(maker)).toBe(`renew-module@${role}`);
			expect(about(maker).decision.test).toBeNull();
		}
	);

	it('a supply that falls under load is mended first', () => {
		const maker = scanned('brake', '4F0049', FAILS);
		step(maker, 'meter:module-supply', 'brake', { 'meter:module-supply@brake': 'low' });
		expect(first(maker)).not.toBe('renew-module@brake');
	});

	it('“not coded” is thought of where the code says so, and hardly where it does not', () => {
		const notCoded = (dtc: string) =>
			sumOf(
				about(scanned('brake', dtc, FAILS)),
				({ id, place }) => id === 'module-not-coded' && place === 'brake'
			);
		expect(notCoded('4F0055')).toBeGreaterThan(0.3);
		expect(notCoded('4F0049')).toBeLessThan(0.02);
		expect(notCoded('404513')).toBeLessThan(0.02);
		// Told by a module of which that is not described, it sends nobody to another.
		const other = about(scanned('gateway', '4F0055', FAILS));
		expect(sumOf(other, ({ id, place }) => id === NOT_DESCRIBED && place === 'gateway')).toBeGreaterThan(0.5);
	});

	it('of a restraint module leads to its maker’s procedure, and to no test at it', () => {
		const maker = scanned('restraint', '4F0049', FAILS);
		expect(first(maker)).toBe('makers-procedure@restraint');
		expect(
			about(maker).candidates.filter(
				({ place, kind }) => place === 'restraint' && kind.id.startsWith('meter:')
			)
		).toEqual([]);
	});
});
