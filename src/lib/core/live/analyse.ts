import { pairsTogether, wholeVehicle } from './commonCauses';
import type { CommonCause, LiveAnalysis, LiveFinding } from './findings';
import { plausibilityNotes, type LiveNote } from './plausibility';
import { ratioOffset } from './ratioOffsets';
import type { Recording } from './recording';
import { roughStretches } from './roughness';
import { oddWheelSentence } from './toothCount';
import { rateSentence } from './visibility';
import { wheelFindings } from './wheelFindings';
import { wheelTable, type WheelTable } from './wheelTable';
import { wheelWords } from './words';

/** What is known of the vehicle; without it usual values are taken and said to be. */
export interface LiveVehicle {
	trackM: number;
	wheelbaseM: number;
	/** Teeth (or pole pairs) that the module counts with; null where not known. */
	teeth: number | null;
}

export const USUAL_VEHICLE: LiveVehicle = { trackM: 1.5, wheelbaseM: 2.7, teeth: null };

/**
 * Looks through a recording of wheel speeds for what a technician would look for: signals that stay at zero or are not
 * available, that drop out, jump, begin late or end early, and wheels that roll at another rate than the rest. Turning and
 * honest slip are none of these. Needs memory for about twice the recording.
 */
export function analyseLive(recording: Recording, vehicle: LiveVehicle = USUAL_VEHICLE): LiveAnalysis {
	const table = wheelTable(recording);
	const brakeSwitch = recording.channels.get('brake_switch') ?? null;
	const rough = roughStretches(table);
	const findings = table.names.flatMap((_, k) => wheelFindings(table, k, rough[k] ?? null, brakeSwitch));
	// A wheel that says nothing or nonsense has no ratio; one that now and then drops out has.
	const usable = table.names.map(
		(name) =>
			!table.onStands.includes(name) &&
			!findings.some(
				({ channel, type }) => channel === name && (type.startsWith('stuck') || type === 'erratic')
			)
	);
	const offset = ratioOffset(table, recording, usable);
	if (offset) findings.push(offsetFinding(table, offset, vehicle));
	const whole = wholeVehicle(table);
	const common = [...(whole ? [whole] : []), ...pairsTogether(findings, 2 * table.intervalS)];
	const notes = [...plausibilityNotes(table, recording, vehicle), ...standsNote(table)];
	const rateHz = 1 / table.intervalS;
	const rateText = rateSentence(rateHz, vehicle.teeth ?? undefined);
	return {
		rateHz,
		durationS: (recording.timeS.at(-1) ?? 0) - (recording.timeS[0] ?? 0),
		channels: [...recording.channels.keys()],
		findings,
		shortestVisibleS: table.intervalS,
		verdict: verdictOf(findings, common, notes, table),
		common,
		notes,
		onStands: table.onStands.length > 0,
		rateText
	};
}

function offsetFinding(
	{ timeS }: WheelTable,
	{ channel, ratio, from, to }: NonNullable<ReturnType<typeof ratioOffset>>,
	{ teeth }: LiveVehicle
): LiveFinding {
	const percent = (Math.abs(ratio - 1) * 100).toFixed(1);
	const odd = /^(front|rear|axle\d)_/.test(channel);
	const cause = odd
		? oddWheelSentence(ratio, teeth)
		: 'Tyres of another size, wear or pressure there than on the rest.';
	return {
		type: 'ratio-offset',
		channel,
		startS: timeS[from] ?? 0,
		endS: timeS[to] ?? 0,
		count: 1,
		value: ratio,
		text: `${wheelWords(channel)} reads ${percent} % ${ratio > 1 ? 'faster' : 'slower'} than the rest all along. ${cause}`,
		startsS: [timeS[from] ?? 0]
	};
}

function standsNote({ onStands, names }: WheelTable): LiveNote[] {
	if (onStands.length === 0) return [];
	const list = onStands
		.map((name, i) => (i === 0 ? wheelWords(name) : wheelWords(name).toLowerCase()))
		.join(' and ');
	const text =
		onStands.length === names.length
			? 'The wheels turn one by one: taken for a round on stands, so they are not held against each other.'
			: `${list} stand while the others turn slowly: taken for a run on stands, so they are not judged.`;
	return [{ channel: onStands[0] ?? '', value: 0, text }];
}

/** What a note is about, by its channel. */
const ABOUT: Readonly<Record<string, string>> = {
	time: 'recording itself',
	vehicle: 'vehicle speed',
	steering: 'steering angle',
	yaw: 'yaw rate',
	supply: 'supply',
	front: 'front wheels in bends'
};

function verdictOf(
	findings: readonly LiveFinding[],
	common: readonly CommonCause[],
	notes: readonly LiveNote[],
	{ names, intervalS, reference, onStands }: WheelTable
): string {
	const [cause] = common;
	if (cause) return cause.text;
	const first = findings[0];
	if (first) {
		const more = findings.length > 1 ? ` (and ${findings.length - 1} more)` : '';
		return `${first.text}${more}`;
	}
	const stands = notes.at(-1)?.text ?? '';
	if (onStands.length === names.length && names.length > 0) return stands;
	if (onStands.length > 0) return `The wheels that turn agree. ${stands}`;
	const [note] = notes;
	const moved = reference.some((kmh) => kmh > 6);
	if (!moved) return 'The vehicle hardly moves in this recording: nothing can be judged from it.';
	if (note)
		return `All ${names.length} wheels agree; look at what is noted about the ${ABOUT[note.channel] ?? note.channel}.`;
	const toothFits =
		intervalS > 0.02
			? ' A single missing tooth would not show at this rate: that takes an oscilloscope.'
			: '';
	return `All ${names.length} wheels agree; nothing longer than ${intervalS.toFixed(2)} s stands out.${toothFits}`;
}
