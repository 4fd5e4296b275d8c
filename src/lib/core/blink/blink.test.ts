import { describe, expect, it } from 'vitest';
import { randomFromText } from '../path/randomFromText';
import { flashesInTurn, flashesOf } from './flashesOf';
import { readFlashes, type Flash, type LampReading } from './readFlashes';

function read(flashes: readonly Flash[]): LampReading {
	const reading = readFlashes(flashes);
	if (!reading.ok) throw new Error(reading.error);
	return reading.value;
}
const at = (...seconds: number[]): Flash[] => seconds.map((onS) => ({ onS, offS: null }));

interface Lamp {
	groups: number[];
	times: number;
	/** From one flash's beginning to the next one's. */
	flashS: number;
	groupS: number;
	cycleS: number;
}

/** A lamp with every time off by up to a quarter, tapped along by hand. */
function tapped({ groups, times, flashS, groupS, cycleS }: Lamp, random: () => number): Flash[] {
	const off = (seconds: number) => seconds * (0.75 + random() / 2);
	const flashes: Flash[] = [];
	let now = 0;
	for (let showing = 0; showing < times; showing++)
		for (const [g, count] of groups.entries())
			for (let i = 0; i < count; i++) {
				flashes.push({ onS: now, offS: null });
				now += off(i + 1 < count ? flashS : g + 1 < groups.length ? groupS : cycleS);
			}
	return flashes;
}

describe('a lamp code', () => {
	it('is read right for a thousand random codes at any speed, each time off by up to a quarter', () => {
		const random = randomFromText('a thousand lamps');
		const between = (low: number, high: number) => low + random() * (high - low);
		let wrong = 0;
		for (let i = 0; i < 1000; i++) {
			const groups = Array.from(
				{ length: 2 + Math.floor(random() * 2.4) },
				() => 1 + Math.floor(random() * 9)
			);
			const flashS = between(0.2, 1);
			const groupS = flashS * between(2.4, 4);
			const lamp = { groups, times: 2, flashS, groupS, cycleS: groupS * between(1.8, 3) };
			const reading = read(tapped(lamp, random));
			if (reading.groups.join('-') === groups.join('-') && reading.repeats === 2) continue;
			wrong += 1;
			expect(reading.confidence, `${groups.join('-')} read as ${reading.groups.join('-')}`).toBeLessThan(0.9);
			expect(reading.wantsAnother).toBe(true);
		}
		expect(wrong).toBeLessThanOrEqual(3);
	});

	it('played back as a lamp reads as itself: every code of two digits and some of three, slow and fast', () => {
		const digits = Array.from({ length: 9 }, (_, i) => i + 1);
		const two = digits.flatMap((one) => digits.map((other) => [one, other]));
		const codes = [...two, ...two.flatMap((code) => [1, 2, 5, 9].map((third) => [...code, third]))];
		for (const slow of [0.5, 1, 2]) {
			const timing = {
				litS: 0.3 * slow,
				darkS: 0.3 * slow,
				betweenGroupsS: 1.5 * slow,
				betweenCyclesS: 3.6 * slow
			};
			for (const times of [2, 3])
				for (const code of codes) {
					const { groups, repeats } = read(flashesOf(code, times, timing));
					expect([groups.join('-'), repeats], `${code.join('-')} × ${times}, ${slow}`).toEqual([
						code.join('-'),
						times
					]);
				}
		}
	});

	it('shown once asks for another showing, shown again the same is enough', () => {
		const once = at(0, 0.5, 1, 2.5, 3, 3.5, 4);
		expect(read(once)).toMatchObject({ groups: [3, 4], repeats: 1, wantsAnother: true });
		expect(read(once).gapS.cycle).toBeNull();
		const again = at(8, 8.5, 9, 10.5, 11, 11.5, 12);
		const twice = read([...once, ...again]);
		expect(twice).toMatchObject({ groups: [3, 4], repeats: 2, wantsAnother: false });
		expect(twice.gapS).toEqual({ flash: 0.5, group: 1.5, cycle: 4 });
	});

	it('tapped along from its middle, and stopped in it, is the whole one in between', () => {
		const [, , ...late] = flashesOf([4, 2], 4);
		const cut = late.slice(0, -3);
		expect(read(cut)).toMatchObject({ groups: [4, 2], repeats: 2 });
	});

	it('one after the other are told in their order, the one shown most first', () => {
		const [one, other] = [flashesOf([1, 2], 2), flashesOf([3, 1], 3)];
		const later = (one.at(-1)?.offS ?? 0) + 3.5;
		const moved = other.map(({ onS, offS }) => ({ onS: onS + later, offS: (offS ?? 0) + later }));
		const reading = read([...one, ...moved]);
		expect(reading.codes).toEqual([
			{ groups: [1, 2], repeats: 2 },
			{ groups: [3, 1], repeats: 3 }
		]);
		expect(reading).toMatchObject({ groups: [3, 1], repeats: 3 });
	});

	it('a long lit lamp begins a showing and is no flash', () => {
		const showing = (from: number): Flash[] => [
			{ onS: from, offS: from + 2 },
			...flashesOf([2, 3], 1).map(({ onS, offS }) => ({ onS: onS + from + 3, offS: (offS ?? 0) + from + 3 }))
		];
		expect(read([...showing(0), ...showing(9)])).toMatchObject({ groups: [2, 3], repeats: 2 });
	});

	it('one flash is one', () => {
		expect(read(at(3))).toMatchObject({ groups: [1], repeats: 1, wantsAnother: true });
	});

	it.each([
		[[], /no flash/],
		[at(1, 1), /two flashes begin at 1 s/],
		[[{ onS: 1, offS: 0.5 }], /before it was lit/],
		[
			[
				{ onS: 1, offS: 2 },
				{ onS: 1.5, offS: 3 }
			],
			/before the one at 1 s is out/
		]
	])('%j is refused with its place', (flashes, words) => {
		const reading = readFlashes(flashes);
		expect(reading.ok ? '' : reading.error).toMatch(words);
	});
});

describe('codes that are shown in turn', () => {
	it.each([
		[
			'two in turn',
			[
				[2, 3],
				[3, 1],
				[2, 3],
				[3, 1]
			],
			[
				[2, 3],
				[3, 1]
			],
			false
		],
		[
			'three, the last seen once',
			[
				[2, 1],
				[2, 3],
				[4, 1],
				[2, 1],
				[2, 3]
			],
			[
				[2, 1],
				[2, 3],
				[4, 1]
			],
			true
		],
		[
			'each twice before the next',
			[
				[2, 3],
				[2, 3],
				[3, 1],
				[3, 1],
				[2, 3]
			],
			[
				[2, 3],
				[3, 1]
			],
			false
		],
		[
			'one slip among many',
			[
				[2, 3],
				[2, 3],
				[2, 4],
				[2, 3],
				[2, 3]
			],
			[
				[2, 3],
				[2, 4]
			],
			false
		]
	])('%s', (_what, shown, codes, wantsAnother) => {
		const read = readFlashes(flashesInTurn(shown, 1));
		if (!read.ok) throw new Error(read.error);
		expect(read.value.codes.map(({ groups }) => groups)).toEqual(codes);
		expect(read.value.wantsAnother).toBe(wantsAnother);
	});
});
