import { BusAnalysis } from '../../core/bus/analyseLog';
import { MOST_KEPT_EXCHANGES, MOST_KEPT_PROBLEMS } from '../thread/keptLimits';
import type { PayloadOf } from '../entries/entry';

/** The input is no frame log, or more than is taken here. */
export class NoFrameLog extends Error {}

const MOST_UNPACKED_BYTES = 2_000_000_000;
/** Hex of all kept exchanges together, in signs: an entry stays a page, not an archive. */
const MOST_KEPT_HEX = 250_000;
const LONGEST_MESSAGE_HEX = 8192;

/** A log in pieces → its analysis. Throws {@link NoFrameLog} with a sentence where it is none. */
export async function readLog(pieces: AsyncIterable<Uint8Array>): Promise<BusAnalysis> {
	const analysis = new BusAnalysis();
	let bytes = 0;
	for await (const piece of pieces) {
		if (bytes === 0 && piece.includes(0))
			throw new NoFrameLog('It is a binary file, not text: a frame log has one frame a line.');
		bytes += piece.length;
		if (bytes > MOST_UNPACKED_BYTES) throw new NoFrameLog('Unpacked it is larger than 2 GB.');
		analysis.push(piece);
	}
	analysis.end();
	if (analysis.frames === 0) {
		const [first] = analysis.badLines;
		throw new NoFrameLog(
			first ? `No line of it is a frame. Line ${first.line}, ${first.reason}.` : 'It is empty.'
		);
	}
	return analysis;
}

/** What an entry keeps of a log: all that was told, and the exchanges as far as they fit. */
export function keptLog(analysis: BusAnalysis, fileName: string, bytes: number): PayloadOf<'frame-log'> {
	const exchanges: PayloadOf<'frame-log'>['exchanges'] = [];
	let signs = 0;
	for (const { timeS, requestId, responseId, request, response, waits } of analysis.exchanges) {
		if (exchanges.length === MOST_KEPT_EXCHANGES || signs > MOST_KEPT_HEX) break;
		const cut = (hex: string | null) => hex && hex.slice(0, LONGEST_MESSAGE_HEX);
		exchanges.push({ timeS, requestId, responseId, request: cut(request), response: cut(response), waits });
		signs += (request?.length ?? 0) + (response?.length ?? 0);
	}
	return {
		fileName,
		bytes,
		frames: analysis.frames,
		durationS: analysis.durationS,
		badLineCount: analysis.badLineCount,
		badLines: analysis.badLines.slice(0, MOST_KEPT_PROBLEMS),
		exchangeCount: analysis.exchanges.length,
		exchanges,
		modules: analysis.modules,
		broadcasts: analysis.broadcasts,
		problemCount: analysis.problemCount,
		problems: analysis.problems.slice(0, MOST_KEPT_PROBLEMS)
	};
}
