import type { CaseReport } from '../../case/paper/report';
import type { Captures } from '../db/captures';
import type { Photos } from '../db/photos';
import { customerDocument } from './customerDocument';
import type { ReportHead } from './parts';
import { traceDrawing } from './drawings';
import { technicianDocument } from './technicianDocument';
import { reportInUnits } from '../../case/paper/reportInUnits';
import { pdfOf } from './pdf';
import type { Reader } from './readers';
import { tagDocument } from './tagDocument';

const jpegAddress = (bytes: Uint8Array): string =>
	`data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}`;

/** A case's report on paper. */
export async function caseReportPdf(
	reader: Reader,
	head: ReportHead,
	kept: CaseReport,
	{ photos, captures }: { photos: Photos; captures: Captures },
	caseId: string
): Promise<Uint8Array> {
	if (reader === 'tag') return pdfOf(tagDocument(head));
	const report = reportInUnits(kept, head.units);
	if (reader === 'customer') {
		const [first] = report.photos;
		const bytes = first && (await photos.read(caseId, first.id));
		return pdfOf(customerDocument(head, report, bytes ? jpegAddress(bytes) : null));
	}
	const pictures = new Map<string, Uint8Array>();
	for (const { id } of report.photos) {
		const bytes = await photos.read(caseId, id);
		if (bytes) pictures.set(id, bytes);
	}
	const traces = [];
	for (const trace of report.traces) {
		const samples = await captures.read({ caseId, id: trace.id });
		const drawing = samples && traceDrawing(trace, samples);
		if (drawing) traces.push({ trace, drawing });
	}
	return pdfOf(technicianDocument(head, report, { photos: pictures, traces }));
}
