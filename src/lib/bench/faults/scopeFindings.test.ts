import { likeliestFamilyAt } from '../../../../library/wheelSensors';
import { describe, expect, it } from 'vitest';
import type { Position } from '../../../../library';
import { faults } from '../../../../library/faults';
import { scopeProbe } from '../../../../library/measurePoints';
import { analyseCapture } from '../../core/scope/analyseCapture';
import type { ScopeFindingType } from '../../core/scope/findings';
import { vehicleOf } from '../bench.fixture';
import { BenchScope } from '../instruments/scope';
import { benchFault, libraryFault } from './benchFault';

/**
 * What a capture at the module's plug says of a fault: a finding; `rate` = whole, but with another number of pulses than its
 * mate; `level` = whole, but not where its mate lies; `whole` = it does not show there, and what it takes instead.
 */
type Shows = ScopeFindingType | 'rate' | 'level' | `whole: ${string}` | null;

const ELSEWHERE = {
	meter: 'whole: the meter finds it',
	live: 'whole: too rare for a capture, live data waits for it',
	inside: 'whole: behind the probe, substitution finds it'
} as const;

/** By fault: on current levels of two wires (the minibus), on a coil (the ambulance). */
const TABLE: Record<string, [twoWire: Shows, passive: Shows]> = {
	'ring-tooth-missing': ['missing-tooth', 'missing-tooth'],
	'ring-cracked': ['missing-tooth', 'missing-tooth'],
	'ring-run-out': ['run-out', 'run-out'],
	'ring-loose': ['dropout', 'run-out'],
	'ring-creeping': ['rate', 'rate'],
	'ring-moved': ['flat', 'low-amplitude'],
	'ring-wrong-count': ['rate', 'rate'],
	'encoder-reversed': ['flat', null],
	'encoder-dust': ['missing-tooth', 'missing-tooth'],
	'encoder-weak': ['flat', null],
	'gap-rust': ['flat', 'low-amplitude'],
	'gap-bracket-bent': ['flat', 'low-amplitude'],
	'gap-sensor-loose': ['dropout', 'dropout'],
	'gap-chips': ['flat', 'low-amplitude'],
	'bearing-play': ['dropout', 'run-out'],
	'sensor-dead': ['flat', 'flat'],
	'sensor-stuck-low': ['flat', null],
	'sensor-stuck-high': ['flat', null],
	'sensor-dull': ['flat', 'low-amplitude'],
	'sensor-dies-hot': ['flat', 'flat'],
	'sensor-dies-at-random': [ELSEWHERE.live, ELSEWHERE.live],
	'sensor-leaks-wet': [ELSEWHERE.meter, ELSEWHERE.meter],
	'sensor-coil-open': [null, 'flat'],
	'sensor-coil-shorted': [null, 'low-amplitude'],
	'sensor-coil-breaks-hot': [null, 'flat'],
	'sensor-wrong-part': ['flat', 'low-amplitude'],
	'sensor-plug-corroded': ['flat', ELSEWHERE.meter],
	'sensor-plug-loose': ['dropout', 'dropout'],
	'sensor-plug-wet': ['level', 'low-amplitude'],
	'sensor-pin-pushed-back': ['flat', 'flat'],
	'lead-open': ['flat', 'flat'],
	'lead-return-open': ['flat', 'flat'],
	'lead-short-to-ground': ['flat', ELSEWHERE.meter],
	'lead-feed-short-to-ground': ['flat', ELSEWHERE.meter],
	'lead-short-to-supply': ['flat', ELSEWHERE.meter],
	'lead-wires-touch': ['flat', 'flat'],
	'lead-chafed': ['dropout', ELSEWHERE.meter],
	'lead-breaks-when-turned': ['flat', 'flat'],
	'lead-high-resistance': ['flat', ELSEWHERE.meter],
	'lead-pulled-tight': [ELSEWHERE.live, ELSEWHERE.live],
	'lead-picks-up-noise': ['spike', 'spike'],
	'lead-beside-relay': [ELSEWHERE.live, ELSEWHERE.live],
	'middle-plug-corroded': ['flat', ELSEWHERE.meter],
	'module-pin-spread': ['dropout', 'dropout'],
	'module-plug-water': [ELSEWHERE.meter, ELSEWHERE.meter],
	'module-input-dead': ['flat', 'flat'],
	'wheel-cavities-corroded': ['flat', ELSEWHERE.meter]
};
const VEHICLES = ['brindle-marlow-16', 'velmora-skiff'] as const;
const BAD: Position = 'rear-left';
const GOOD: Position = 'rear-right';
const RATE_HZ = 20_000;
const SEVERITY = 0.6;
/** Looseness shows at speed. */
const FAST: string[] = ['ring-loose', 'bearing-play'];

/** A wheel turned on stands and then its mate; or a wet rough drive in a bend, in the heat, for a fault that needs it. */
function captureOf(vehicleId: string, faultId: string) {
	const { when } = libraryFault(faultId);
	const faulty = vehicleOf(vehicleId, benchFault(faultId, BAD, SEVERITY));
	const { type } = faulty.world;
	const probe = (position: string) =>
		scopeProbe(type, position as typeof BAD, 'module', likeliestFamilyAt(type, position));
	const take = (vehicle: typeof faulty, positions: string[], durationS: number) => {
		const taken = new BenchScope(vehicle).capture({
			probes: positions.map(probe),
			rateHz: RATE_HZ,
			durationS
		});
		if (!taken.ok) throw new Error(taken.error);
		return taken.value.channels;
	};
	if (when) {
		const kmh = (when.aboveKmh ?? 15) + 5;
		const bend = when.steeringDeg ? { steeringDeg: 260 } : {};
		faulty.drive([
			{ toKmh: kmh, overS: 4, wet: 1, roughness: 1, outsideC: 35, ...bend },
			{ toKmh: kmh, overS: 400, ...bend }
		]);
		faulty.advance(when.aboveC === undefined ? 6 : 240);
		return { type, channels: take(faulty, [BAD, GOOD], 4) };
	}
	const turned = (vehicle: typeof faulty, position: string) => {
		vehicle.spin(position, FAST.includes(faultId) ? 58 : 20);
		vehicle.advance(2);
		return take(vehicle, [position], 3)[0] ?? new Float32Array();
	};
	return { type, channels: [turned(faulty, BAD), turned(vehicleOf(vehicleId), GOOD)] };
}

describe('a capture at the module’s plug', () => {
	it('has an expectation for every fault of a corner that is electrical or magnetic', () => {
		const corners = [...faults.values()].filter(({ at, link }) => at === 'corner' && link !== 'tyre');
		expect(Object.keys(TABLE).sort()).toEqual(corners.map(({ id }) => id).sort());
	});

	describe.each(VEHICLES.map((id, i) => [id, i] as const))('%s', (vehicleId, column) => {
		const cases = Object.entries(TABLE).flatMap(([fault, shows]) => {
			const expected = shows[column];
			return expected ? [[fault, expected] as const] : [];
		});
		it.each(cases)('%s: %s', (faultId, expected) => {
			const { type, channels } = captureOf(vehicleId, faultId);
			const teeth = type.wheels.find(({ position }) => position === BAD)?.ringTeeth;
			const { channels: found, comparison } = analyseCapture(
				{
					rateHz: RATE_HZ,
					startS: 0,
					channels: [BAD, GOOD].map((name, i) => ({ name, volts: channels[i] ?? new Float32Array() }))
				},
				{ teeth }
			);
			const [bad, good] = found;
			expect(good?.findings, 'the sound mate').toEqual([]);
			const types = bad?.findings.map((finding) => finding.type) ?? [];
			const other = comparison?.others[0];
			const apart = Math.abs(Math.log(other?.frequencyRatio ?? 1));
			if (expected === 'rate') {
				expect(types).toEqual([]);
				expect(apart).toBeGreaterThan(Math.log(1.05));
			} else if (expected === 'level') {
				expect(Math.abs(other?.levelDifferenceV ?? 0)).toBeGreaterThan(0.2);
				expect(comparison?.text).toMatch(/lies .* (higher|lower)/);
			} else if (expected.startsWith('whole')) expect(types).toEqual([]);
			else expect(types).toContain(expected);
		});
	});
});
