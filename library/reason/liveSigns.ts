import { drawsCurrent, type SensorKind } from '../sensorKinds';
import { LOW_A } from '../../src/lib/core/electrical/twoWire';
/** One word of a sign's outcomes for all that an analysis found. */

const ROAD: readonly [outcome: string, types: readonly string[]][] = [
	['not-available', ['stuck-invalid']],
	['zero', ['stuck-zero']],
	['jumps', ['spike', 'erratic']],
	['drops', ['dropout']],
	['late', ['late-pickup', 'early-loss']]
];

/** What a recording of a drive says of a wheel. @param channel `rear_left` */
export function roadOutcome(
	findings: readonly { type: string; channel: string; value: number }[],
	channel: string
): string {
	const own = findings.filter((finding) => finding.channel === channel);
	for (const [outcome, types] of ROAD) if (own.some(({ type }) => types.includes(type))) return outcome;
	const [axle, side] = channel.split('_');
	const offset = findings.find(
		(finding) => finding.type === 'ratio-offset' && [channel, axle, side].includes(finding.channel)
	);
	return offset ? (offset.value > 1 ? 'faster' : 'slower') : 'clean';
}

const SCOPE: readonly [outcome: string, types: readonly string[]][] = [
	['flat', ['flat']],
	['gap', ['missing-tooth']],
	['drops', ['dropout']],
	['run-out', ['run-out']],
	['weak', ['low-amplitude']],
	['noise', ['spike', 'noise']]
];
const LEVEL_SHARE = 0.25;
const RATE_SHARE = 0.04;

/** What a capture says of a wheel's signal. @param expectedHz by teeth and speed, or the mate's; null where not known */
export function scopeOutcome(
	channel: { findings: readonly { type: string }[]; medianHz: number | null; lowV: number },
	sensor: { family: SensorKind | null; senseResistorOhms: number | null },
	expectedHz: number | null
): string {
	const { findings, medianHz, lowV } = channel;
	const found = SCOPE.find(([, types]) => findings.some(({ type }) => types.includes(type)));
	if (found) return found[0];
	if (medianHz !== null && expectedHz !== null && Math.abs(medianHz / expectedHz - 1) > RATE_SHARE)
		return 'rate';
	const levels = drawsCurrent(sensor.family);
	const ohms = sensor.senseResistorOhms;
	if (levels && ohms !== null && Math.abs(lowV / (LOW_A * ohms) - 1) > LEVEL_SHARE) return 'level';
	return 'whole';
}
