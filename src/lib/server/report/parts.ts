import type { Content, StyleDictionary, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { CaseReport } from '../../case/paper/report';
import type { MarkState } from '../../core/prove/proof';
import { paperDate } from '../cases/clock';
import { BAD, GOOD, INK, QUIET, RULE, SUSPECT } from './inks';
import { quantity, type Units } from '../../core/units/units';
import { runsOf } from './runs';

/** Pieces that both papers are made of. */

/** What a report is about, beside what its thread says. */
export interface ReportHead {
	shopName: string;
	/** Where the shop is and how it is reached; empty = it has not said. */
	shopAddress: string;
	/** What stands at the foot of every page; empty = nothing. */
	footer: string;
	/** The shop's mark, a PNG in base 64; empty = none. */
	logo: string;
	/** What distances, pressures and the like stand in. */
	units: Units;
	/** Who it is for; absent where the paper goes further than to them. */
	customer?: string;
	number: string;
	vehicleName: string;
	nickname: string;
	plate: string;
	/** Address of the case on the shop's own server. */
	url: string;
	printedAt: string;
}

const STYLES: StyleDictionary = {
	title: { fontSize: 19, bold: true },
	head: { fontSize: 12.5, bold: true, margin: [0, 13, 0, 3] },
	quiet: { color: QUIET },
	small: { fontSize: 8.5 }
};

export const line = (text: string, style?: string): Content => ({
	text: runsOf(text),
	...(style ? { style } : {})
});
export const strong = (text: string): Content => ({ text: runsOf(text), bold: true });
export const heading = (text: string): Content => line(text, 'head');
export const list = (texts: readonly string[]): Content => ({ ul: texts.map((text) => line(text)) });
export const when = (has: boolean, content: () => Content[]): Content[] => (has ? content() : []);
export const cell = (text: string, style?: string): TableCell => ({
	text: runsOf(text),
	...(style ? { style } : {})
});

/** The four marks, told apart by shape. */
export function mark(state: MarkState): Content {
	const size = 9;
	const mid = size / 2;
	switch (state) {
		case 'good':
			return { canvas: [{ type: 'ellipse', x: mid, y: mid, r1: mid, r2: mid, color: GOOD }] };
		case 'suspect':
			return {
				canvas: [
					{
						type: 'ellipse',
						x: mid,
						y: mid,
						r1: mid - 0.5,
						r2: mid - 0.5,
						lineColor: SUSPECT,
						lineWidth: 1.2
					},
					{
						type: 'polyline',
						closePath: true,
						color: SUSPECT,
						points: [-90, -60, -30, 0, 30, 60, 90].map((deg) => ({
							x: mid + (mid - 0.5) * Math.cos((deg * Math.PI) / 180),
							y: mid + (mid - 0.5) * Math.sin((deg * Math.PI) / 180)
						}))
					}
				]
			};
		case 'bad':
			return {
				canvas: [
					{
						type: 'polyline',
						closePath: true,
						color: BAD,
						points: [
							{ x: 0, y: 0 },
							{ x: size, y: 0 },
							{ x: size * 0.66, y: mid },
							{ x: size, y: size },
							{ x: 0, y: size }
						]
					}
				]
			};
		case 'open':
			return {
				canvas: [
					{ type: 'ellipse', x: mid, y: mid, r1: mid - 0.5, r2: mid - 0.5, lineColor: QUIET, lineWidth: 1 }
				]
			};
	}
}

export const HAIR = {
	hLineWidth: () => 0.5,
	vLineWidth: () => 0,
	hLineColor: () => RULE,
	paddingLeft: () => 0,
	paddingRight: () => 8,
	paddingTop: () => 3,
	paddingBottom: () => 3
};
export const table = (widths: (string | number)[], body: TableCell[][], headerRows = 0): Content => ({
	table: { widths, body, headerRows, dontBreakRows: true },
	layout: HAIR
});

export function page(head: ReportHead, content: Content[]): TDocumentDefinitions {
	const { shopName, number, vehicleName, nickname } = head;
	return {
		info: { title: `${number} ${vehicleName}, ${nickname}`, author: shopName, creator: 'Jaldi' },
		pageSize: 'A4',
		pageMargins: [48, 44, 48, head.footer === '' ? 46 : 62],
		defaultStyle: { font: 'Next', fontSize: 10, color: INK, lineHeight: 1.2 },
		styles: STYLES,
		footer: (now, of) => ({
			stack: [
				{
					columns: [
						{ text: runsOf(`${shopName} · ${number} · printed ${paperDate(head.printedAt)}`), width: '*' },
						{ text: `${now} of ${of}`, alignment: 'right', width: 60 }
					]
				},
				...when(head.footer !== '', () => [line(head.footer.replaceAll('\n', ' · '))])
			],
			margin: [48, 14, 48, 0],
			fontSize: 8,
			color: QUIET
		}),
		content
	};
}

export function top(
	{ shopName, shopAddress, logo, customer, number, vehicleName, nickname, plate, units, url }: ReportHead,
	report: CaseReport
): Content[] {
	const { vehicle } = report;
	return [
		...when(logo !== '', () => [
			{ image: `data:image/png;base64,${logo}`, fit: [136, 45], margin: [0, 0, 0, 6] } satisfies Content
		]),
		{
			columns: [
				{
					width: '*',
					stack: [
						line([shopName, ...addressOf(shopAddress), number].join(' · '), 'quiet'),
						line(report.verdict, 'title'),
						...when(customer !== undefined, () => [line(`For ${customer ?? ''}`)]),
						line(`${vehicleName}, ${nickname} · ${plate}`),
						...when(vehicle !== null, () => [
							line(
								[
									vehicle?.vin,
									vehicle?.odometerKm == null ? null : quantity(vehicle.odometerKm, 'distance', units),
									vehicle?.toldByItself ? 'as the vehicle itself says' : null
								]
									.filter(Boolean)
									.join(', ')
							)
						])
					]
				},
				{ width: 66, stack: [{ qr: url, fit: 66, foreground: INK }] }
			],
			columnGap: 16
		},
		{ canvas: [{ type: 'line', x1: 0, y1: 6, x2: 499, y2: 6, lineWidth: 1.5, lineColor: INK }] }
	];
}

const addressOf = (address: string): string[] =>
	address
		.split('\n')
		.map((part) => part.trim())
		.filter(Boolean);

/** What was asked for it, line by line, and what the customer said. */
export const cost = ({ cost: asked }: CaseReport): Content[] =>
	asked
		? [
				heading('What it costs'),
				table(
					['*', 'auto'],
					[
						...asked.lines.map(({ what, amount }) => [cell(what), amountCell(amount)]),
						...asked.sums.map(({ what, amount }) => [cell(what, 'quiet'), amountCell(amount)]),
						[strong('In all') as TableCell, { ...amountCell(asked.total), bold: true }]
					]
				),
				line(asked.said)
			]
		: [];
const amountCell = (text: string) => ({ text: runsOf(text), alignment: 'right' as const });

export const complaintLine = ({ complaint }: CaseReport): string =>
	complaint.words ? `“${complaint.words}”` : 'No complaint is written down.';

export function repairs(report: CaseReport): Content[] {
	if (report.repairs.length === 0) return [line('No repair is written down.')];
	const sided = report.repairs.some(({ where }) => where !== null && SIDED.test(where));
	return [
		...report.repairs.flatMap(repairLines),
		...when(sided, () => [line('Left and right are as one sits in it, looking ahead.', 'small')])
	];
}

const SIDED = /left|right/;

function repairLines({
	title,
	where,
	temporary,
	parts,
	note,
	checked,
	unmeasured
}: CaseReport['repairs'][number]): Content[] {
	return [
		strong(
			`${title}${where ? `, ${where}` : ''}${temporary ? ' (temporary: it has to be done again)' : ''}.`
		),
		...parts.map(({ name, number, grade }) =>
			line(`Fitted: ${name}${number ? `, ${number}` : ''} (${grade}).`)
		),
		...when(checked !== null, () => [line(`${checked ?? ''}.`)]),
		...when(unmeasured, () => [
			line(`Nothing was measured or looked at ${where ?? 'there'} before it was fitted.`, 'quiet')
		]),
		...when(note !== '', () => [line(note, 'quiet')])
	];
}

/** The codes of a vehicle without a link; of one that has none, that it has none. */
export const byLamp = ({ byLamp: told, noCodes }: CaseReport): Content[] =>
	told && told.length > 0
		? [list(told.map(({ code, words, now }) => `${code}, told by its lamp: ${words}; ${now}.`))]
		: [line(noCodes)];

/** Of a case that a lead closed unproven: what stood open, before anything else. */
export const unproven = ({ signature: signed }: CaseReport): Content[] =>
	signed?.left
		? [
				heading('Not proven'),
				line('It was handed over without proof that the fault is gone. What stood open:'),
				list(signed.left)
			]
		: [];

export const signature = (report: CaseReport): Content[] =>
	report.signature
		? [
				...when(report.signature.left !== null, () => [line('Closed unproven, because:')]),
				strong(report.signature.statement),
				line(`${report.signature.by}, ${paperDate(report.signature.at)}`)
			]
		: [line('Not signed.')];
