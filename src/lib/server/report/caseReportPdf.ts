import type { CaseReport } from '../../case/paper/report';
import type { Captures } from '../db/captures';
import type { Photos } from '../db/photos';
import { customerDocument } from './customerDocument';
import type { ReportHead } from './parts';
import { traceDrawing } from './drawings';
import { technicianDocument } from './technicianDocument';
import { pdfOf } from './pdf';

/** A case's report on paper. @param reader the whole of it for a technician, or one page for the customer */
export async function caseReportPdf(
	reader: 'technician' | 'customer',
	head: ReportHead,
	report: CaseReport,
	{ photos, captures }: { photos: Photos; captures: Captures },
	caseId: string
): Promise<Uint8Array> {
	if (reader === 'customer') return pdfOf(customerDocument(head, report));
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
