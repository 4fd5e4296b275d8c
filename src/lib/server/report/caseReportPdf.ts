import type { CaseReport } from '../../case/report';
import type { Photos } from '../db/photos';
import { customerDocument } from './customerDocument';
import type { ReportHead } from './parts';
import { technicianDocument } from './technicianDocument';
import { pdfOf } from './pdf';

/** A case's report on paper. @param reader the whole of it for a technician, or one page for the customer */
export async function caseReportPdf(
	reader: 'technician' | 'customer',
	head: ReportHead,
	report: CaseReport,
	photos: Photos,
	caseId: string
): Promise<Uint8Array> {
	if (reader === 'customer') return pdfOf(customerDocument(head, report));
	const pictures = new Map<string, Uint8Array>();
	for (const { id } of report.photos) {
		const bytes = await photos.read(caseId, id);
		if (bytes) pictures.set(id, bytes);
	}
	return pdfOf(technicianDocument(head, report, pictures));
}
