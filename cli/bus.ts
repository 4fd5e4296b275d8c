import { decodeHeavy, decodeTold } from '../src/lib/case/codes/decoded';
import { BusAnalysis } from '../src/lib/core/bus/analyseLog';
import { codeMessageName } from '../src/lib/core/bus/codeBroadcasts';
import { parsePair } from '../src/lib/core/bus/diagnosticPair';
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
import { codeText } from './decode';
import { openInput, UnreadableInput } from './openInput';

/** `jaldi bus FILE [--json] [--pair REQ:RES]...` */
export const bus: Command = async (args) => {
	const { values, positionals } = readArguments(args, { pair: { type: 'string', multiple: true } });
	const [file] = positionals;
	if (file === undefined || positionals.length > 1)
		throw new WrongUsage('give one file, or - for standard input');
	const pairs = ((values.pair ?? []) as string[]).map((text) => {
		const pair = parsePair(text);
		if (!pair.ok) throw new WrongUsage(`--pair takes ${pair.error}`);
		return pair.value;
	});

	const analysis = new BusAnalysis(pairs);
	try {
		let piece = 0;
		for await (const bytes of openInput(file)) {
			if (piece++ === 0 && bytes.includes(0)) {
				throw new UnreadableInput(
					`${file}: byte ${bytes.indexOf(0) + 1} is no text; expected a frame log, one frame a line`
				);
			}
			analysis.push(bytes);
		}
		analysis.end();
		if (analysis.frames === 0) throw new UnreadableInput(`${file}: ${noFrames(analysis)}`);
	} catch (error) {
		if (!(error instanceof UnreadableInput)) throw error;
		complain(`jaldi bus: ${error.message}`);
		return NOT_UNDERSTOOD;
	}
	await (values.json ? sayJson(analysis) : sayText(analysis));
	return DONE;
};

function noFrames({ badLines, lineCount }: BusAnalysis): string {
	const [first] = badLines;
	return first
		? `line ${first.line}, ${first.reason}; none of ${lineCount} lines is a frame`
		: 'it is empty; expected lines of (seconds) interface ID#DATA';
}

/** Signs gathered before they are written. */
const WRITE_AT = 1 << 16;

/** The value, written piece by piece: the exchanges of a long log are never all objects at once. */
async function sayJson(analysis: BusAnalysis): Promise<void> {
	const { frames, badLines, badLineCount, durationS, modules, broadcasts, problems } = analysis;
	const head = JSON.stringify({ frames, badLines, badLineCount, durationS });
	await say(`${head.slice(0, -1)},"exchanges":[`);
	let waiting = '';
	let begun = false;
	for (const exchange of analysis.exchanges) {
		waiting += (begun ? ',' : '') + JSON.stringify(exchange);
		begun = true;
		if (waiting.length > WRITE_AT) {
			await say(waiting);
			waiting = '';
		}
	}
	await say(waiting);
	const tail = JSON.stringify({
		modules: modules.map((module) => ({ ...module, codes: module.codes.map((code) => decodeTold(code)) })),
		broadcasts: broadcasts.map((broadcast) => ({ ...broadcast, codes: broadcast.codes.map(decodeHeavy) })),
		problems
	});
	await say(`],${tail.slice(1)}\n`);
}

const MOST_SHOWN = 20;

async function sayText(analysis: BusAnalysis): Promise<void> {
	const { frames, badLines, badLineCount, durationS, modules, broadcasts, problems, problemCount } = analysis;
	await say(`${frames} frames in ${durationS} s, ${analysis.exchanges.length} exchanges\n`);
	for (const { line, reason } of badLines.slice(0, MOST_SHOWN))
		await say(`line ${line} passed over: ${reason}\n`);
	if (badLineCount > MOST_SHOWN) await say(`… and ${badLineCount - MOST_SHOWN} more lines\n`);
	if (analysis.exchanges.length > 0) await say(`\n${strong('Exchanges')}\n`);
	for (const { timeS, requestId, responseId, service, response, negative, waits } of analysis.exchanges) {
		const outcome = negative
			? `refused: ${negative.text}`
			: response === null
				? 'no answer'
				: `${response.length / 2} bytes`;
		const waited = waits > 0 ? `, asked to wait ${waits} times` : '';
		const route = `${requestId ?? '?'} → ${responseId ?? 'nobody'}`;
		await say(`${timeS.toFixed(6).padStart(12)}  ${route}  ${service}: ${outcome}${waited}\n`);
	}
	for (const { responseId, codes } of modules) {
		await say(`\n${strong(`Module ${responseId}`)}: ${codes.length === 0 ? 'no codes' : ''}\n`);
		for (const code of codes) await say(codeText(decodeTold(code)));
	}
	for (const { source, pgn, codes } of broadcasts) {
		await say(
			`\n${strong(`Sender ${source}, ${codeMessageName(pgn)}`)}: ${codes.length === 0 ? 'no codes' : ''}\n`
		);
		for (const code of codes) await say(codeText(decodeHeavy(code)));
	}
	if (problemCount > 0) await say(`\n${strong('Problems')}\n`);
	for (const { timeS, id, reason, detail } of problems.slice(0, MOST_SHOWN))
		await say(`${timeS.toFixed(6).padStart(12)}  ${id}  ${reason}: ${detail}\n`);
	if (problemCount > MOST_SHOWN) await say(`… and ${problemCount - MOST_SHOWN} more\n`);
}
