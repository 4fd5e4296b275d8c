import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BAND_KMH, bandOf, kmDrivenSo, mergeBands, TURNS, turnOf, type DrivenBand } from './drivenBands';

const ANY = { fromKmh: null, toKmh: null, turning: false };
const bands = fc.array(
	fc.record({
		fromKmh: fc.integer({ min: 0, max: 30 }).map((n) => n * BAND_KMH),
		turn: fc.constantFrom(...TURNS),
		km: fc.double({ min: 0, max: 50, noNaN: true })
	})
);
const total = (of: readonly DrivenBand[]) => of.reduce((sum, { km }) => sum + km, 0);

describe('kilometres of a drive by how it was driven', () => {
	it('all of it counts where nothing is asked', () => {
		fc.assert(fc.property(bands, (of) => Math.abs(kmDrivenSo(of, ANY) - total(of)) < 1e-9));
	});

	it('below a speed and above it make the whole', () => {
		fc.assert(
			fc.property(bands, fc.double({ min: 0, max: 160, noNaN: true }), (of, kmh) => {
				const below = kmDrivenSo(of, { ...ANY, toKmh: kmh });
				const above = kmDrivenSo(of, { ...ANY, fromKmh: kmh });
				expect(below + above).toBeCloseTo(total(of), 6);
			})
		);
	});

	it('a limit inside a band takes its share of it', () => {
		const of: DrivenBand[] = [
			{ fromKmh: 30, turn: 'straight', km: 2 },
			{ fromKmh: 35, turn: 'straight', km: 5 },
			{ fromKmh: 40, turn: 'straight', km: 4 }
		];
		// 38–40 is two fifths of 5 km; 40–45 whole.
		expect(kmDrivenSo(of, { ...ANY, fromKmh: 38 })).toBeCloseTo(6, 9);
		expect(kmDrivenSo(of, { fromKmh: 30, toKmh: 35, turning: false })).toBeCloseTo(2, 9);
	});

	it('in bends, either way, and not where nobody read the steering', () => {
		const of = TURNS.map((turn, i): DrivenBand => ({ fromKmh: 20, turn, km: 10 ** i }));
		expect(kmDrivenSo(of, { ...ANY, turning: true })).toBe(1 + 100);
	});

	it('merging loses nothing and leaves each band once', () => {
		fc.assert(
			fc.property(bands, bands, (a, b) => {
				const merged = mergeBands(a, b);
				expect(total(merged)).toBeCloseTo(total(a) + total(b), 6);
				expect(new Set(merged.map(({ fromKmh, turn }) => `${fromKmh} ${turn}`)).size).toBe(merged.length);
			})
		);
	});

	it('a bend begins at 45 degrees of the steering wheel; left is positive', () => {
		expect([44, 45, -45, -44, null, NaN].map((deg) => turnOf(deg))).toEqual([
			'straight',
			'left',
			'right',
			'straight',
			'unknown',
			'unknown'
		]);
		expect([0, 4.99, 5, 72].map(bandOf)).toEqual([0, 0, 5, 70]);
	});
});
