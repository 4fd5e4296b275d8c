import type { FindingType, LiveAnalysis, LiveEvent, LiveFinding } from './findings';
import { ratioOffset } from './ratioOffsets';
import { sampleIntervalS, type Recording } from './recording';
import { wheelEvents, type WheelEvents } from './wheelEvents';
import { wheelTable, type WheelTable } from './wheelTable';

/** Longer than this without a valid reading it is no dropout but a circuit that tells "not available". */
const INVALID_RUN_S = 1;
const INVALID_SHARE = 0.6;
const ZERO_SHARE = 0.85;
const MOVING_KMH = 8;
/** Both kinds of jump, each so often, make a signal erratic. */
const ERRATIC_EACH = 3;
/** All wheels together losing this much speed in one step: no vehicle brakes so. */
const COMMON_KMH_PER_S = 80;
const COMMON_FROM_KMH = 12;

const words = (channel: string) => channel.replace(/^axle(\d)_/, 'axle $1 ').replace('_', ' ');
const times = (count: number) => (count === 1 ? 'once' : `${count} times`);
const km = (kmh: number) => `${kmh.toFixed(kmh < 20 ? 1 : 0)} km/h`;

/**
 * Looks through a recording of wheel speeds for what a technician would look for: signals that stay at zero or are not
 * available, that drop out, jump, begin late or end early, and wheels that roll at another rate than the rest. Turning and
 * honest slip are none of these.
 */
export function analyseLive(recording: Recording): LiveAnalysis {
	const table = wheelTable(recording);
	const intervalS = sampleIntervalS(recording);
	const findings = table.names.flatMap((_, k) => wheelFindings(table, k));
	// A wheel that says nothing or nonsense has no ratio; one that now and then drops out has.
	const usable = table.names.map(
		(name) =>
			!findings.some(
				({ channel, type }) => channel === name && (type.startsWith('stuck') || type === 'erratic')
			)
	);
	const offset = ratioOffset(table, recording, usable);
	if (offset) {
		const faster = offset.ratio > 1 ? 'faster' : 'slower';
		findings.push({
			type: 'ratio-offset',
			channel: offset.channel,
			startS: at(table, offset.from),
			endS: at(table, offset.to),
			count: 1,
			value: offset.ratio,
			text: `${capital(words(offset.channel))} reads ${(Math.abs(offset.ratio - 1) * 100).toFixed(1)} % ${faster} than the rest all along: another tyre or another ring.`
		});
	}
	const commonDropsS = commonDrops(table);
	const durationS = recording.timeS.at(-1) ?? 0;
	return {
		rateHz: 1 / intervalS,
		durationS,
		channels: [...recording.channels.keys()],
		findings,
		shortestVisibleS: intervalS,
		verdict: verdictOf(findings, commonDropsS, intervalS, table),
		commonDropsS
	};
}

const at = (table: WheelTable, i: number) => table.timeS[i] ?? 0;
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function wheelFindings(table: WheelTable, k: number): LiveFinding[] {
	const channel = table.names[k] ?? '';
	const name = capital(words(channel));
	const stuck = stuckFinding(table, k, name);
	if (stuck) return [stuck];
	const events = wheelEvents(table, k);
	const made: LiveFinding[] = [];
	const add = (type: FindingType, list: LiveEvent[], value: number, text: string) => {
		const [first, last] = [list[0], list.at(-1)];
		if (!first || !last) return;
		made.push({
			type,
			channel,
			startS: at(table, first.from),
			endS: at(table, last.to),
			count: list.length,
			value,
			text
		});
	};
	const { dropouts, spikes, latePickups, earlyLosses, slips } = events;
	if (isErratic(events)) {
		const all = [...dropouts, ...spikes].sort((a, b) => a.from - b.from);
		const text = `${name} jumps up and collapses, ${times(all.length)}, where the others run smooth.`;
		add('erratic', all, all.length, text);
	} else {
		const lowest = Math.min(...dropouts.map(({ value }) => value));
		const lows = `${name} falls to ${km(Math.max(0, lowest))} and returns, ${times(dropouts.length)}, while the others roll on.`;
		add('dropout', dropouts, lowest, lows);
		const highest = Math.max(...spikes.map(({ value }) => value));
		add(
			'spike',
			spikes,
			highest,
			`${name} jumps to ${km(highest)}, ${times(spikes.length)}, faster than any wheel can.`
		);
	}
	const pickup = middle(latePickups.map(({ value }) => value));
	add('late-pickup', latePickups, pickup, `${name} begins to read only at about ${km(pickup)}.`);
	const loss = middle(earlyLosses.map(({ value }) => value));
	add(
		'early-loss',
		earlyLosses,
		loss,
		`${name} reads zero already at about ${km(loss)}, while the vehicle still rolls.`
	);
	const spun = Math.max(...slips.map(({ value }) => value));
	add('slip', slips, spun, `${name} really spins, up to ${km(spun)}: grip, not a signal.`);
	return made;
}

const middle = (list: number[]) => list.sort((a, b) => a - b)[list.length >> 1] ?? 0;

const isErratic = ({ dropouts, spikes }: WheelEvents) =>
	dropouts.length >= ERRATIC_EACH && spikes.length >= ERRATIC_EACH;

/** A signal that says nothing for as long as it matters. */
function stuckFinding(table: WheelTable, k: number, name: string): LiveFinding | null {
	const channel = table.names[k] ?? '';
	const own = table.kmh[k] ?? new Float64Array();
	const flags = table.invalid[k] ?? new Uint8Array();
	let [read, bad, moving, zero] = [0, 0, 0, 0];
	let [firstBad, lastBad, firstMoving, lastMoving] = [-1, -1, -1, -1];
	for (let i = 0; i < own.length; i++) {
		const value = own[i] ?? NaN;
		if (!Number.isNaN(value)) read += 1;
		if (flags[i]) {
			bad += 1;
			if (firstBad < 0) firstBad = i;
			lastBad = i;
		}
		if ((table.expected[k]?.[i] ?? NaN) > MOVING_KMH && !Number.isNaN(value)) {
			moving += 1;
			if (value < 0.6) zero += 1;
			if (firstMoving < 0) firstMoving = i;
			lastMoving = i;
		}
	}
	const longBad = lastBad >= 0 && at(table, lastBad) - at(table, firstBad) >= INVALID_RUN_S;
	if (bad > INVALID_SHARE * (read + bad) && (longBad || read === 0)) {
		return {
			type: 'stuck-invalid',
			channel,
			startS: at(table, firstBad),
			endS: at(table, lastBad),
			count: 1,
			value: 255,
			text: `${name} tells "not available": an open circuit, or frozen after one. It is not a speed.`
		};
	}
	if (moving > 2 && zero > ZERO_SHARE * moving) {
		return {
			type: 'stuck-zero',
			channel,
			startS: at(table, firstMoving),
			endS: at(table, lastMoving),
			count: 1,
			value: 0,
			text: `${name} stays at zero while the others roll.`
		};
	}
	return null;
}

/** Moments at which every wheel falls at once: the supply, the module or the recording, not as many sensors. */
function commonDrops({ timeS, kmh }: WheelTable): number[] {
	const found: number[] = [];
	if (kmh.length < 2) return found;
	for (let i = 1; i < timeS.length; i++) {
		const stepS = (timeS[i] ?? 0) - (timeS[i - 1] ?? 0);
		const all = kmh.every((own) => {
			const [before, now] = [own[i - 1] ?? NaN, own[i] ?? NaN];
			return before > COMMON_FROM_KMH && now < before / 2 && (before - now) / stepS > COMMON_KMH_PER_S;
		});
		if (all) found.push(timeS[i] ?? 0);
	}
	return found;
}

/** A single missing tooth at walking pace is gone sooner than this: live data cannot show it. */
const TOOTH_S = 0.05;

function verdictOf(
	findings: LiveFinding[],
	commonDropsS: number[],
	intervalS: number,
	{ names }: WheelTable
): string {
	if (commonDropsS.length > 0) {
		return `All ${names.length} wheels fall at once, ${times(commonDropsS.length)}: look at the supply, the module or the recording, not at the sensors.`;
	}
	const first = findings[0];
	if (first) {
		const more = findings.length > 1 ? ` (and ${findings.length - 1} more)` : '';
		return `${first.text}${more}`;
	}
	const limit =
		intervalS > TOOTH_S
			? ` A single missing tooth would not show at this rate: that takes an oscilloscope.`
			: '';
	return `All ${names.length} wheels agree; nothing longer than ${intervalS.toFixed(2)} s stands out.${limit}`;
}
