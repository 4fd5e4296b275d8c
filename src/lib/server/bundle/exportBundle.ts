import { CASE_NAME, hashList, packBundle, type BundleHead } from '../../case/paper/bundle';
import { signBundle, type KeyPair } from '../../case/paper/bundleSignature';
import { caseSchemaText } from '../../case/thread/caseSchema';
import { writeCaseFile } from '../../case/thread/caseFile';
import type { Entry, EntryOf } from '../../case/entries/entry';
import { photosOf } from '../../case/entries/photosOf';
import type { CaseReport } from '../../case/paper/report';
import { framePieces } from '../../core/live/pieces';
import { writeCsv } from '../../core/live/writeCsv';
import { decodeCapture } from '../../core/scope/captureChunk';
import { writeCapture } from '../../core/scope/captureRows';
import type { Captures, Owned } from '../db/captures';
import type { Photos } from '../db/photos';
import { unpackedLog } from '../cases/keptLog';
import { caseReportPdf } from '../report/caseReportPdf';
import type { ReportHead } from '../report/parts';

const text = (written: string): Uint8Array => new TextEncoder().encode(written);

/** Everything of a case in one file, signed with the shop's key. */
export async function exportBundle(
	caseId: string,
	thread: Entry[],
	about: BundleHead,
	paper: { head: ReportHead; report: CaseReport },
	stores: { captures: Captures; photos: Photos },
	key: KeyPair
): Promise<Uint8Array> {
	const files = new Map<string, Uint8Array>();
	files.set(CASE_NAME, text(writeCaseFile(thread, about)));
	files.set('case.schema.json', text(caseSchemaText()));
	for (const entry of thread) {
		if (entry.kind === 'live-recording') await addRecording(files, entry, stores.captures);
		if (entry.kind === 'scope-capture') await addCapture(files, entry, stores.captures);
		if (entry.kind === 'frame-log') await addLog(files, entry, stores.captures);
		for (const { id } of photosOf(entry)) {
			const bytes = await stores.photos.read(caseId, id);
			if (bytes) files.set(`photos/${id}.jpg`, new Uint8Array(bytes));
		}
	}
	const { head, report } = paper;
	files.set('report.pdf', await caseReportPdf('technician', head, report, stores, caseId));
	files.set('report-customer.pdf', await caseReportPdf('customer', head, report, stores, caseId));
	return packBundle(files, await signBundle(hashList(files), key));
}

/** As CSV for people, and as it lies on disk for whoever takes it in again: no reading loses a digit. */
async function addRecording(files: Map<string, Uint8Array>, own: Owned, captures: Captures): Promise<void> {
	const { id } = own;
	const samples = await captures.read(own);
	if (!samples) return;
	files.set(`captures/${id}.csv`, text(writeCsv(samples)));
	files.set(`captures/${id}.bin`, framePieces(await captures.pieces(own)));
}

async function addCapture(files: Map<string, Uint8Array>, own: Owned, captures: Captures): Promise<void> {
	const { id } = own;
	const pieces = await captures.pieces(own);
	const [bytes] = pieces;
	const capture = bytes && decodeCapture(bytes);
	if (!capture?.ok) return;
	files.set(`captures/${id}.csv`, text(writeCapture(capture.value)));
	files.set(`captures/${id}.bin`, framePieces(pieces));
}

/** The log as it came, where it was kept, and what was asked and answered in it. */
async function addLog(
	files: Map<string, Uint8Array>,
	entry: EntryOf<'frame-log'>,
	captures: Captures
): Promise<void> {
	files.set(`logs/${entry.id}.txt`, text(logText(entry)));
	const [packed] = entry.payload.kept ? await captures.pieces(entry) : [];
	const log = packed && (await unpackedLog(packed));
	if (log) files.set(`logs/${entry.id}.log`, log);
}

/** What was asked and answered in a log of the bus. */
function logText({ payload }: EntryOf<'frame-log'>): string {
	const rows = payload.exchanges.map(
		({ timeS, requestId, responseId, request, response }) =>
			`(${timeS.toFixed(6)}) ${requestId ?? '-'} ${request ?? '-'} -> ${responseId ?? '-'} ${response ?? '-'}`
	);
	return `# ${payload.fileName}: ${payload.frames} frames, ${payload.exchangeCount} exchanges\n${rows.join('\n')}\n`;
}
