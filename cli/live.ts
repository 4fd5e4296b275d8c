import { analyseLive, USUAL_VEHICLE } from '../src/lib/core/live/analyse';
import type { LiveAnalysis } from '../src/lib/core/live/findings';
import { readRecording } from '../src/lib/core/live/readRecording';
import { whatItBelieves } from '../src/lib/core/tyres/compareTyres';
import {
	complain,
	DONE,
	NOT_UNDERSTOOD,
	readArguments,
	say,
	strong,
	WrongUsage,
	type Command
} from './command';
import { readDrive } from './drive';
import { readWhole, UnreadableInput } from './openInput';

/** `jaldi live FILE.csv [--json] [--drive front|rear|all] [--track-m 1.5] [--wheelbase-m 2.7]` */
export const live: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		drive: { type: 'string' },
		'track-m': { type: 'string' },
		'wheelbase-m': { type: 'string' }
	});
	const [file] = positionals;
	if (file === undefined || positionals.length > 1)
		throw new WrongUsage('give one file, or - for standard input');
	const drive = readDrive(values.drive);
	const metres = (name: 'track-m' | 'wheelbase-m') => {
		const text = values[name];
		if (text !== undefined && !(Number(text) > 0))
			throw new WrongUsage(`--${name} expects metres above 0, not "${text}"`);
		return text === undefined ? undefined : Number(text);
	};
	const vehicle = {
		...USUAL_VEHICLE,
		trackM: metres('track-m') ?? USUAL_VEHICLE.trackM,
		wheelbaseM: metres('wheelbase-m') ?? USUAL_VEHICLE.wheelbaseM
	};
	let bytes: Uint8Array;
	try {
		bytes = await readWhole(file);
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi live: ${error.message}`);
		return NOT_UNDERSTOOD;
	}
	const read = readRecording(bytes);
	if (!read.ok) {
		const { line, column, reason } = read.error;
		complain(`jaldi live: ${file}: line ${line}${column === null ? '' : `, column ${column}`}: ${reason}`);
		return NOT_UNDERSTOOD;
	}
	for (const { line, reason } of read.value.problems)
		complain(`jaldi live: ${file}: line ${line}: ${reason}`);
	const analysis = analyseLive(read.value, vehicle);
	const axle = analysis.findings.find(
		({ type, channel }) => type === 'ratio-offset' && (channel === 'front' || channel === 'rear')
	);
	const believed = axle
		? whatItBelieves(axle.channel === 'front' ? 1 / axle.value : axle.value, drive)
		: null;
	if (values.json)
		await say(
			`${JSON.stringify({ ...analysis, controllerBelieves: believed, problems: read.value.problems })}\n`
		);
	else await say(textOf(analysis, believed));
	return DONE;
};

function textOf(
	{ rateHz, durationS, findings, common, notes, rateText, verdict }: LiveAnalysis,
	believed: string | null
): string {
	const lines = [`${durationS.toFixed(1)} s at ${rateHz.toFixed(1)} Hz`];
	for (const { text, startS, endS } of findings)
		lines.push(`  ${startS.toFixed(2)}–${endS.toFixed(2)} s  ${text}`);
	for (const { text } of [...common, ...notes]) lines.push(`  ${text}`);
	if (believed) lines.push(`  ${believed}`);
	lines.push(`  ${rateText}`);
	return `${lines.join('\n')}\n${strong(verdict)}\n`;
}
