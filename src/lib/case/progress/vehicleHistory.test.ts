import { describe, expect, it } from 'vitest';
import { BRAKE, CLUSTER, OPEN, ThreadMaker } from '../thread/threads.fixture';
import { projectCase } from './project';
import { codesOver, kmPerYear, visitOf, type Visit } from './vehicleHistory';

const visit = (number: string, at: string, make: (thread: ThreadMaker) => void): Visit => {
	const maker = new ThreadMaker();
	maker.add('case-opened', { vehicleId: 'v', typeId: 'brindle-marlow-16', name: 'minibus', plate: 'TPI 16' });
	make(maker);
	return visitOf({ id: number, number, signed: false, at }, projectCase(maker.thread));
};
const counted = (at: string, odometerKm: number | null) => ({ ...visit('TP-1', at, () => {}), odometerKm });

describe('what a case says of its vehicle', () => {
	it('is its complaint, its count, its own codes, what was done and what went in', () => {
		const said = visit('TP-0402', '2026-11-01T08:00:00Z', (thread) => {
			thread.add('complaint', { words: 'Lamp on', symptoms: [], conditions: [] });
			thread.add('vehicle-checked', { vin: '11111111111111111', checkDigitFits: true, odometerKm: 84_210 });
			thread.scan([[BRAKE, OPEN, 0xaf]]);
			thread.repair();
		});
		expect(said).toMatchObject({
			number: 'TP-0402',
			complaint: 'Lamp on',
			odometerKm: 84_210,
			codes: [{ text: 'C0045-13', state: 'suspect' }]
		});
		expect(said.repairs).toHaveLength(1);
	});
});

describe('codes over the visits of a vehicle', () => {
	const there = (thread: ThreadMaker) => thread.scan([[BRAKE, OPEN, 0xaf]]);
	const gone = (thread: ThreadMaker) => {
		there(thread);
		thread.repair();
		thread.clear();
		thread.cycleKey();
		thread.lamps();
		thread.scan([[BRAKE, OPEN, 0x50]]);
		thread.drive();
		thread.scan([]);
	};
	const back = (thread: ThreadMaker) => {
		there(thread);
		thread.repair();
		thread.clear();
		thread.cycleKey();
		there(thread);
	};

	it('stand by visit, each as it ended, those that came most often first', () => {
		const visits = [
			visit('1', '2026-01-01T08:00:00Z', gone),
			visit('2', '2026-03-01T08:00:00Z', () => {}),
			visit('3', '2026-05-01T08:00:00Z', back),
			visit('4', '2026-06-01T08:00:00Z', (thread) => thread.scan([[CLUSTER, 'C1234A', 0xaf]]))
		];
		const [first, ...others] = codesOver(visits);
		expect(first?.text).toBe('C0045-13');
		expect(first?.then.map((one) => one?.state ?? null)).toEqual(['good', null, 'bad', null]);
		expect(others.every(({ then }) => then.slice(0, 3).every((one) => one === null))).toBe(true);
	});
});

describe('how far it goes in a year', () => {
	it('is by the first and the last count', () => {
		const visits = [
			counted('2024-01-01T00:00:00Z', 50_000),
			counted('2025-01-01T00:00:00Z', null),
			counted('2026-01-01T00:00:00Z', 80_000)
		];
		expect(kmPerYear(visits)).toBeCloseTo(15_000, -2);
	});

	it('is not said of days, nor of a count that went back', () => {
		expect(kmPerYear([counted('2026-01-01T00:00:00Z', 1), counted('2026-01-09T00:00:00Z', 900)])).toBeNull();
		expect(kmPerYear([counted('2025-01-01T00:00:00Z', 90), counted('2026-01-01T00:00:00Z', 10)])).toBeNull();
		expect(kmPerYear([])).toBeNull();
	});
});
