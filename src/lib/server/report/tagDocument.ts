import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { INK, QUIET } from './inks';
import type { ReportHead } from './parts';
import { runsOf } from './runs';

/** A label of 62 × 40 mm, in points. */
const LABEL = { width: 176, height: 113 };

/** What hangs on the key: which case it is, whose vehicle, and a square that leads to it. */
export function tagDocument({
	number,
	vehicleName,
	nickname,
	plate,
	shopName,
	url
}: ReportHead): TDocumentDefinitions {
	return {
		info: { title: number, author: shopName, creator: 'Jaldi' },
		pageSize: LABEL,
		pageMargins: [8, 7, 8, 5],
		defaultStyle: { font: 'Next', fontSize: 9, color: INK, lineHeight: 1.1 },
		content: {
			columns: [
				{
					width: '*',
					stack: [
						{ text: number, fontSize: 20, bold: true },
						{ text: runsOf(plate), fontSize: 14, bold: true },
						{ text: runsOf(nickname || vehicleName), margin: [0, 3, 0, 0] },
						{ text: runsOf(shopName), color: QUIET, fontSize: 7, margin: [0, 3, 0, 0] }
					]
				},
				{ width: 74, stack: [{ qr: url, fit: 74, foreground: INK }] }
			],
			columnGap: 6
		}
	};
}
