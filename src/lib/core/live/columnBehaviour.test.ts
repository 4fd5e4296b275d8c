import { describe, expect, it } from 'vitest';
import { offersByBehaviour } from './columnBehaviour';
import { guessColumns, headerKey, mappingOf, recalledMapping, rememberedMapping } from './columnMapping';
import { columnSample } from './columnSample';
import { csvShape } from './csvShape';
import { madeDrive, randomFrom, spoiled } from './drives.fixture';
import { readRecording } from './readRecording';
import type { Recording } from './recording';

const CAR = ['front_left', 'front_right', 'rear_left', 'rear_right'];
const drive = (seed: number, slip = true): Recording =>
	madeDrive({ seed, rateHz: 10, durationS: 240, noiseKmh: 0.05, stepKmh: 0.0625, slip });

/** A file whose columns are called so and hold those channels of the drive, or what is made for them. */
function fileOf(
	recording: Recording,
	columns: readonly (readonly [header: string, of: string | ((i: number) => number | string)])[]
): string {
	const rows = [...recording.timeS].map((_, i) =>
		columns
			.map(([, of]) =>
				typeof of === 'function'
					? of(i)
					: of === 'time'
						? recording.timeS[i]
						: recording.channels.get(of)?.[i]
			)
			.join(',')
	);
	return [columns.map(([header]) => header).join(','), ...rows].join('\n');
}

function offered(text: string, wheels = CAR) {
	const bytes = new TextEncoder().encode(text);
	const shape = csvShape(bytes);
	if (!shape.ok) throw new Error(shape.error.reason);
	return offersByBehaviour(guessColumns(shape.value), columnSample(bytes, shape.value), wheels);
}
const asOf = (text: string, wheels?: string[]) => offered(text, wheels).map(({ as }) => as);

/** Steering by the wheels: to the left the right ones are faster. */
const steering =
	({ channels }: Recording) =>
	(i: number) => {
		const [l, r] = ['rear_left', 'rear_right'].map((name) => channels.get(name)?.[i] ?? 0);
		const mean = ((l ?? 0) + (r ?? 0)) / 2;
		return mean > 5 ? Number(((((r ?? 0) - (l ?? 0)) / mean) * 900).toFixed(1)) : 0;
	};

describe('columns whose headers say nothing', () => {
	const made = drive(3);
	const WORD = ['A', 'B', 'C', 'D'] as const;

	it('are offered by what they do: a clock, four that move alike, one in their middle', () => {
		const text = fileOf(made, [
			['n', (i) => i + 1],
			['Q', (i) => Number((i * 0.1).toFixed(1))],
			...WORD.map((word, n) => [word, CAR[n] ?? ''] as const),
			['E', 'vehicle'],
			['F', () => 21.5]
		]);
		const guesses = offered(text);
		expect(guesses.map(({ as }) => as)).toEqual(['n', 'time', ...CAR, 'vehicle', 'f']);
		// Each is a question, and nothing is read before it was answered.
		for (const { as, question } of guesses.filter(({ as: is }) => is !== 'n' && is !== 'f'))
			expect(question, as ?? '').not.toBeNull();
		const mapping = mappingOf(guesses);
		const read = mapping && readRecording(text, mapping);
		expect(read?.ok && [...(read.value.channels.get('rear_left') ?? [])]).toEqual([
			...(made.channels.get('rear_left') ?? [])
		]);
	});

	it('are told apart by the bends where steering is known, in whatever order they stand', () => {
		const order = ['rear_right', 'front_left', 'rear_left', 'front_right'];
		let told = 0;
		for (let seed = 1; seed <= 30; seed++) {
			const own = drive(seed, false);
			const text = fileOf(own, [
				['time_s', 'time'],
				['steering_deg', steering(own)],
				...WORD.map((word, n) => [word, order[n] ?? ''] as const)
			]);
			const as = asOf(text).slice(2);
			// Where the bends are too few the order of the columns is offered, never a third thing.
			expect([order, CAR], String(seed)).toContainEqual(as);
			if (as[0] === order[0]) told += 1;
		}
		expect(told).toBeGreaterThan(20);
	});

	it('with a wheel that drops out still move like wheels', () => {
		const random = randomFrom(9);
		const faulty = spoiled(made, 'rear_left', (kmh) => (random() < 0.1 ? 0 : kmh));
		const text = fileOf(faulty, [
			['time_s', 'time'],
			...WORD.map((word, n) => [word, CAR[n] ?? ''] as const)
		]);
		expect(asOf(text)).toEqual(['time', ...CAR]);
	});

	it('fewer or more than the vehicle has wheels are asked about one by one', () => {
		const three = fileOf(made, [
			['time_s', 'time'],
			...WORD.slice(0, 3).map((word, n) => [word, CAR[n] ?? ''] as const)
		]);
		const guesses = offered(three);
		expect(guesses.map(({ as }) => as)).toEqual(['time', null, null, null]);
		expect(guesses[1]?.question).toMatch(/which one/);
	});

	it('of a motorcycle are two, and known by name as well', () => {
		const [front = '', rear = ''] = CAR;
		const wheels = ['front_wheel', 'rear_wheel'];
		const text = (a: string, b: string) =>
			fileOf(made, [
				['time_s', 'time'],
				[a, front],
				[b, rear]
			]);
		expect(asOf(text('A', 'B'), wheels)).toEqual(['time', ...wheels]);
		expect(asOf(text('Front wheel speed [km/h]', 'rear_wheel_kmh'), wheels)).toEqual(['time', ...wheels]);
		const read = readRecording(text('front_wheel_kmh', 'rear_wheel_kmh'));
		expect(read.ok && [...read.value.channels.keys()]).toEqual(wheels);
	});

	it('steering and supply are offered by bends and by unit; what does nothing is left', () => {
		const text = fileOf(made, [
			['time_s', 'time'],
			...CAR.map((name) => [`${name}_kmh`, name] as const),
			['X', steering(made)],
			['Z (V)', (i) => 13.8 + (i % 3) / 10],
			['Y', () => 7]
		]);
		expect(asOf(text)).toEqual(['time', ...CAR, 'steering', 'supply', 'y']);
	});

	it('a clock with a damaged row and one out of order is still a clock; a column of nothing is none', () => {
		const text = fileOf(made, [
			['label', () => 'x'],
			['Q', (i) => (i === 40 ? '' : i === 90 ? 2 : (i * 0.1).toFixed(1))],
			...WORD.map((word, n) => [word, CAR[n] ?? ''] as const),
			['R', () => 0]
		]);
		expect(asOf(text)).toEqual(['label', 'time', ...CAR, 'r']);
	});

	it('words, few rows and endless blanks offer nothing and break nothing', () => {
		for (const text of ['a,b\nx,y\n', 'a,b\n1,2\n2,3\n', `a,b\n${',\n'.repeat(500)}`])
			expect(offered(text).every(({ as, question }) => as !== 'time' && question === null)).toBe(true);
	});
});

describe('what was told of a set of headers', () => {
	it('holds for files with the same headers in another order, and for no others', () => {
		const one = { header: ['t', 'A', 'B', 'B'], units: ['s', 'x', 'x', 'y'] };
		const other = { header: ['B', 'a', 't', 'B'], units: ['y', 'x', 's', 'x'] };
		expect(headerKey(one)).toBe(headerKey(other));
		expect(headerKey({ ...one, units: null })).not.toBe(headerKey(one));
		const mapping = {
			time: { column: 0, factor: 1 },
			channels: [
				{ column: 1, channel: 'front_left', factor: 1 },
				{ column: 3, channel: 'rear_left', factor: 2 }
			]
		};
		const kept = rememberedMapping(mapping, one);
		expect(recalledMapping(kept, one)).toEqual(mapping);
		expect(recalledMapping(kept, other)).toEqual({
			time: { column: 2, factor: 1 },
			channels: [
				{ column: 1, channel: 'front_left', factor: 1 },
				{ column: 0, channel: 'rear_left', factor: 2 }
			]
		});
	});
});
