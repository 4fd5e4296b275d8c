import { analyseCapture } from '../src/lib/core/scope/analyseCapture';
import { CaptureReader, type CaptureRead } from '../src/lib/core/scope/captureRows';
import { type ChannelAnalysis, type ScopeAnalysis } from '../src/lib/core/scope/findings';
import { FEWEST_TEETH } from '../src/lib/core/scope/turns';
import { saysWords, voltWords } from '../src/lib/core/scope/words';
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
import { openInput, UnreadableInput } from './openInput';

const MOST_TEETH = 400;

/** `jaldi scope FILE.csv [--json] [--teeth N] [--circumference-m C]` */
export const scope: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		teeth: { type: 'string' },
		'circumference-m': { type: 'string' }
	});
	const [file] = positionals;
	if (file === undefined || positionals.length > 1)
		throw new WrongUsage('give one file, or - for standard input');
	const teeth = values.teeth === undefined ? undefined : Number(values.teeth);
	if (teeth !== undefined && !(Number.isInteger(teeth) && teeth >= FEWEST_TEETH / 3 && teeth <= MOST_TEETH))
		throw new WrongUsage(`--teeth expects a whole number from 4 to ${MOST_TEETH}, not "${values.teeth}"`);
	const round = values['circumference-m'];
	const circumferenceM = round === undefined ? null : Number(round);
	if (circumferenceM !== null && !(circumferenceM > 0 && circumferenceM < 20))
		throw new WrongUsage(`--circumference-m expects metres above 0, not "${round}"`);
	let read: CaptureRead;
	try {
		const reader = new CaptureReader();
		for await (const piece of openInput(file)) if (!reader.push(piece)) break;
		const done = reader.end();
		if (!done.ok) {
			const { line, column, reason } = done.error;
			complain(`jaldi scope: ${file}: line ${line}${column === null ? '' : `, column ${column}`}: ${reason}`);
			return NOT_UNDERSTOOD;
		}
		read = done.value;
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi scope: ${error.message}`);
		return NOT_UNDERSTOOD;
	}
	for (const { line, reason } of read.problems) complain(`jaldi scope: ${file}: line ${line}: ${reason}`);
	const analysis = analyseCapture(read, { teeth });
	const channels = analysis.channels.map((channel) => ({
		...channel,
		...speeds(channel, teeth, circumferenceM)
	}));
	if (values.json) await say(`${JSON.stringify({ ...analysis, channels, problems: read.problems })}\n`);
	else await say(textOf({ ...analysis, channels }));
	return DONE;
};

/** v = f·C / N, where ring and tyre are known. */
function speeds(
	{ medianHz, minHz, maxHz, teethPerRev }: ChannelAnalysis,
	teeth: number | undefined,
	circumferenceM: number | null
): { medianKmh: number | null; minKmh: number | null; maxKmh: number | null } {
	const n = teeth ?? teethPerRev;
	const kmh = (hz: number | null) =>
		hz === null || n === null || circumferenceM === null ? null : ((hz * circumferenceM) / n) * 3.6;
	return { medianKmh: kmh(medianHz), minKmh: kmh(minHz), maxKmh: kmh(maxHz) };
}

type Said = ScopeAnalysis & { channels: (ChannelAnalysis & { medianKmh: number | null })[] };

function textOf({ rateHz, durationS, channels, comparison, verdict }: Said): string {
	const lines = [`${durationS.toFixed(3)} s at ${rateHz.toFixed(0)} samples a second`];
	for (const one of channels) {
		const facts = [
			one.kind,
			one.kind === 'flat' ? voltWords(one.lowV) : `${voltWords(one.lowV)} to ${voltWords(one.highV)}`,
			one.medianHz === null ? null : `${one.pulses} pulses, ${one.medianHz.toFixed(1)} Hz`,
			one.medianKmh === null ? null : `${one.medianKmh.toFixed(1)} km/h`,
			one.teethPerRev === null ? null : `${one.teethPerRev} teeth a turn`
		].filter((fact) => fact !== null);
		lines.push(`${one.name}: ${facts.join(', ')}`);
		if (one.says) lines.push(...saysWords(one.says).map((said) => `  ${said}`));
		for (const { text, times } of one.findings)
			lines.push(
				`  ${
					times.length > 0
						? `at ${times
								.slice(0, 5)
								.map((t) => t.toFixed(4))
								.join(', ')} s: `
						: ''
				}${text}`
			);
	}
	if (comparison) lines.push(comparison.text);
	return `${lines.join('\n')}\n${strong(verdict)}\n`;
}
