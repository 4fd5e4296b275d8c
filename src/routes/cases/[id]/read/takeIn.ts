import { proxy, wrap, type Remote } from 'comlink';
import type { PayloadOf } from '$lib/case/entries/entry';
import { LONGEST_KEPT_TEXT } from '$lib/case/thread/keptLimits';
import { isFrameLog, SNIFF_LENGTH } from '$lib/core/bus/isFrameLog';
import type { FrameLogWorker } from '../../../../workers/frameLog.worker';

/** What came in by paste, drop or choice, looked at but not yet saved. */
export type TakenIn =
	| { kind: 'text'; text: string; name: string }
	/** `packed` is the log itself; null where it is too large to be kept. */
	| { kind: 'log'; log: PayloadOf<'frame-log'>; packed: Uint8Array<ArrayBuffer> | null }
	| { kind: 'refused'; name: string; why: string };

const MOST_LOG_BYTES = 1_000_000_000;
const GZIP_MAGIC = [0x1f, 0x8b];

const size = (bytes: number) =>
	bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${(bytes / 1e6).toFixed(1)} MB`;
const refused = (name: string, why: string): TakenIn => ({ kind: 'refused', name, why });

/** A text as pasted or typed. */
export function takeText(text: string, name: string): TakenIn {
	if (text.length > LONGEST_KEPT_TEXT)
		return refused(
			name,
			`It has more than ${LONGEST_KEPT_TEXT.toLocaleString('en-GB')} signs: take the part with the codes.`
		);
	return { kind: 'text', text: text.replace(/[\uD800-\uDFFF]/gu, '\uFFFD'), name };
}

/** A file, by what is in it, whatever it is called. @param onProgress 0 to 1 while a log is read */
export async function takeFile(file: File, onProgress: (share: number) => void): Promise<TakenIn> {
	if (file.size === 0) return refused(file.name, 'It is empty.');
	if (file.size > MOST_LOG_BYTES)
		return refused(
			file.name,
			`It has ${size(file.size)}; up to ${size(MOST_LOG_BYTES)} are read here. Cut the log to the minutes around the fault.`
		);
	const head = new Uint8Array(await file.slice(0, SNIFF_LENGTH).arrayBuffer());
	const packed = GZIP_MAGIC.every((byte, i) => head[i] === byte);
	if (!packed && head.includes(0))
		return refused(
			file.name,
			'It is a binary file. Text is read here: a print-out, or a frame log with one frame a line.'
		);
	if (packed || isFrameLog(new TextDecoder().decode(head))) return takeLog(file, onProgress);
	if (file.size > LONGEST_KEPT_TEXT * 4)
		return refused(file.name, `It has ${size(file.size)} and is no frame log: take the part with the codes.`);
	return takeText(await file.text(), file.name);
}

/** A frame log, read in a worker. */
export async function takeLog(file: File, onProgress: (share: number) => void): Promise<TakenIn> {
	const worker = new Worker(new URL('../../../../workers/frameLog.worker.ts', import.meta.url), {
		type: 'module'
	});
	const remote: Remote<FrameLogWorker> = wrap<FrameLogWorker>(worker);
	try {
		const read = await remote.read(file, proxy(onProgress));
		return read.ok ? { kind: 'log', log: read.value, packed: read.packed } : refused(file.name, read.error);
	} finally {
		worker.terminate();
	}
}
