import { describe, expect, it } from 'vitest';
import { shippedBook } from '../../../../library/codes';
import type { Entry } from '../entries/entry';
import { projectCase } from '../progress/project';
import { provingDrivePlan } from './provingDrive';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

function opened(): ThreadMaker {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'minibus', plate: '' });
	return maker;
}
const planOf = (thread: Entry[]) => provingDrivePlan(projectCase(thread, shippedBook));

describe('the drive that proves a case', () => {
	it('runs the test of every code that is still open, once for all that ask the same', () => {
		const maker = opened().listen();
		maker.scan([
			[BRAKE, OPEN, 0x2f],
			[BRAKE, '40452F', 0x2f]
		]);
		const plan = planOf(maker.thread);
		expect(plan.tasks.map(({ name }) => name).sort()).toEqual(['C0045-13', 'C0045-2F']);
		expect(plan.legs.length).toBeGreaterThan(0);
		expect(plan.unmet).toEqual([]);
		expect(plan.minutes).toBeLessThan(3);
		maker.repair().clear().cycleKey().lamps();
		maker.scan([]);
		expect(planOf(maker.thread).tasks).toEqual([]);
	});

	it('brings about what the customer describes', () => {
		const maker = opened();
		maker.add('complaint', {
			words: 'The lamp comes on in the bends',
			symptoms: [],
			conditions: [],
			when: ['near-standstill', 'turning']
		});
		maker.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 10 });
		maker.scan([[BRAKE, OPEN, 0x2f]]);
		expect(planOf(maker.thread).tasks.map(({ name }) => name)).toEqual([
			'C0045-13',
			'in a bend to the left',
			'in a bend to the right',
			'at a walking pace'
		]);
	});

	it('goes past the customer’s own speed, and not to one of ours', () => {
		const maker = opened();
		const told = { words: 'It shakes', symptoms: [], conditions: [], when: ['above-a-speed'] };
		const speeds = () => planOf(maker.thread).tasks.map(({ name, words }) => [name, words]);
		maker.add('complaint', told);
		maker.scan([]);
		expect(speeds()[0]?.[1]).toContain('70');
		maker.add('complaint', { ...told, atKmh: 95 });
		expect(speeds()).toHaveLength(1);
		expect(speeds()[0]?.[0]).toBe('at the customer’s speed');
		expect(speeds()[0]?.[1]).toContain('95');
	});

	it('asks for the distance that what comes and goes still needs, in its own conditions', () => {
		const maker = opened().listen();
		maker.scan([[BRAKE, OPEN, 0x2c]]);
		maker.add('returns-told', {
			address: BRAKE,
			dtc: OPEN,
			returns: 1,
			overKm: 2,
			from: 'the customer',
			conditions: 'in rain',
			target: 0.1
		});
		maker.repair().clear().cycleKey().lamps();
		maker.scan([[BRAKE, OPEN, 0]]);
		const { exposure } = planOf(maker.thread);
		expect(exposure).toEqual({
			km: expect.closeTo(18, 9),
			for: 'C0045-13',
			when: 'in rain',
			showsWhen: null,
			so: ''
		});
		// What is told of the same code in another module is told of another code.
		maker.add('returns-told', {
			address: '1040',
			dtc: OPEN,
			returns: 1,
			overKm: 5,
			from: 'the customer',
			conditions: 'in the sun',
			target: 0.05
		});
		expect(planOf(maker.thread).exposure?.when).toBe('in rain');
	});

	it('says of which codes nobody knows what their test needs', () => {
		const maker = opened().listen();
		maker.scan([[BRAKE, '7ABC01', 0x2f]]);
		expect(planOf(maker.thread).unknown).toHaveLength(1);
	});
});
