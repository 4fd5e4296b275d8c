import { shippedBook, type CodeBook } from '../../../../library/codes';
import { codeId, codeNumber, suffixOf, type CodeId } from '../../core/codes/codeId';
import type { AnyCode } from '../../core/codes/spelling';
import { statusPhrase } from '../../core/codes/status';
import { makerOf } from '../thread/vehicleOf';
import { answerCode, type AnsweredCode } from './decoderAnswer';
import type { Entry, EntryOf } from '../entries/entry';
import { happenedAfter, ofKind, standing } from '../thread/thread';

/** A code that somebody or something told us, and that we did not read ourselves. */
export interface ReportedCode {
	entryId: string;
	answer: AnsweredCode;
	/** Module by the name or identifier that came with it. */
	module: string | null;
	/** Its state as told: from the status byte, or the words of the text. */
	state: string | null;
	/** Values that stood with it. */
	values: { name: string; text: string }[];
	/** What our own readings since say of it. */
	ours: 'read-too' | 'not-found' | 'not-read';
}

type Reading = EntryOf<'codes-reported'> | EntryOf<'frame-log'>;

const OURS_WORDS = {
	'read-too': 'we read it too',
	'not-found': 'not there when we read',
	'not-read': 'not read by us yet'
} as const;
export const oursWords = (ours: ReportedCode['ours']): string => OURS_WORDS[ours];

interface Told {
	code: AnyCode;
	module: string | null;
	words: string[];
	values: { name: string; text: string }[];
}

function toldBy(reading: Reading): Told[] {
	if (reading.kind === 'frame-log') {
		const { modules, broadcasts } = reading.payload;
		return [
			...modules.flatMap(({ responseId, codes }) =>
				codes.map((code) => ({
					code: { kind: 'dtc' as const, ...code },
					module: responseId,
					words: [],
					values: []
				}))
			),
			...broadcasts.flatMap(({ source, codes }) =>
				codes.map((code) => ({
					code: { kind: 'j1939' as const, ...code },
					module: `sender ${source}`,
					words: [],
					values: []
				}))
			)
		];
	}
	return reading.payload.modules.flatMap(({ name, codes, values }) =>
		codes.map(({ code, words }, i) => ({
			code,
			module: name,
			words,
			values: values
				.filter((value) => value.ofCode === i)
				.map((value) => ({ name: value.name, text: `${value.value} ${value.unit}`.trim() }))
		}))
	);
}

/** Codes that came by paste, by typing or in a frame log, newest reading first. */
export function reportedCodes(thread: Entry[], book: CodeBook = shippedBook): ReportedCode[] {
	const entries = standing(thread);
	const maker = makerOf(entries);
	const readings = entries.filter((e): e is Reading => e.kind === 'codes-reported' || e.kind === 'frame-log');
	return readings.reverse().flatMap((reading) =>
		toldBy(reading).map(({ code, module, words, values }) => {
			const phrase = code.kind === 'dtc' && code.status !== null ? statusPhrase(code.status) : null;
			return {
				entryId: reading.id,
				answer: answerCode(code, book, maker),
				module,
				state: phrase ?? (words.length > 0 ? words.join(', ') : null),
				values,
				ours: ownReading(entries, reading, code)
			};
		})
	);
}

/** Whether a scan of ours, before or after, has the same code; a suffix that was not told matches any. */
function ownReading(entries: Entry[], reading: Reading, code: AnyCode): ReportedCode['ours'] {
	const scans = ofKind(entries, 'network-scan');
	const seen = scans.some((scan) =>
		scan.payload.modules.some((module) => module.codes.some((read) => isSameCode(code, read.dtc)))
	);
	if (seen) return 'read-too';
	const later = scans.some(
		(scan) => scan.payload.outcome === 'complete' && happenedAfter(entries, scan, reading)
	);
	return later ? 'not-found' : 'not-read';
}

const isSameCode = (code: AnyCode, id: CodeId): boolean => {
	if (code.kind === 'lamp') return false;
	if (code.kind !== 'dtc') return codeId(code) === id;
	return code.code === codeNumber(id) && (code.failureType === null || code.failureType === suffixOf(id));
};
