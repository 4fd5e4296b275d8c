import type { Content, StyleDictionary, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { groupedCodes, type CaseReport } from '../../case/report';
import type { MarkState } from '../../core/prove/proof';
import { paperDate } from '../cases/clock';
import { runsOf } from './runs';

/** What a report is about, beside what its thread says. */
export interface ReportHead {
	shopName: string;
	number: string;
	vehicleName: string;
	nickname: string;
	plate: string;
	/** Address of the case on the shop's own server. */
	url: string;
	printedAt: string;
}
/** Photos by id, as JPEG. */
export type Pictures = ReadonlyMap<string, Uint8Array>;

const INK = '#17332f';
const QUIET = '#5b6661';
const RULE = '#d8cdb8';
const GOOD = '#1f6f5f';
const SUSPECT = '#b3801b';
const BAD = '#cf3a1f';

export const STYLES: StyleDictionary = {
	title: { fontSize: 19, bold: true },
	head: { fontSize: 12.5, bold: true, margin: [0, 13, 0, 3] },
	quiet: { color: QUIET },
	small: { fontSize: 8.5 }
};

const line = (text: string, style?: string): Content => ({ text: runsOf(text), ...(style ? { style } : {}) });
const strong = (text: string): Content => ({ text: runsOf(text), bold: true });
const heading = (text: string): Content => line(text, 'head');
const list = (texts: readonly string[]): Content => ({ ul: texts.map((text) => line(text)) });
const when = (has: boolean, content: () => Content[]): Content[] => (has ? content() : []);
const cell = (text: string, style?: string): TableCell => ({
	text: runsOf(text),
	...(style ? { style } : {})
});

/** The four marks, told apart by shape. */
function mark(state: MarkState): Content {
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

const HAIR = {
	hLineWidth: () => 0.5,
	vLineWidth: () => 0,
	hLineColor: () => RULE,
	paddingLeft: () => 0,
	paddingRight: () => 8,
	paddingTop: () => 3,
	paddingBottom: () => 3
};
const table = (widths: (string | number)[], body: TableCell[][], headerRows = 0): Content => ({
	table: { widths, body, headerRows, dontBreakRows: true },
	layout: HAIR
});

function page(head: ReportHead, content: Content[]): TDocumentDefinitions {
	const { shopName, number, vehicleName, nickname } = head;
	return {
		info: { title: `${number} ${vehicleName}, ${nickname}`, author: shopName, creator: 'Jaldi' },
		pageSize: 'A4',
		pageMargins: [48, 44, 48, 46],
		defaultStyle: { font: 'Next', fontSize: 10, color: INK, lineHeight: 1.2 },
		styles: STYLES,
		footer: (now, of) => ({
			columns: [
				{ text: runsOf(`${shopName} · ${number} · printed ${paperDate(head.printedAt)}`), width: '*' },
				{ text: `${now} of ${of}`, alignment: 'right', width: 60 }
			],
			margin: [48, 14, 48, 0],
			fontSize: 8,
			color: QUIET
		}),
		content
	};
}

function top(
	{ shopName, number, vehicleName, nickname, plate, url }: ReportHead,
	report: CaseReport
): Content[] {
	const { vehicle } = report;
	return [
		{
			columns: [
				{
					width: '*',
					stack: [
						line(`${shopName} · ${number}`, 'quiet'),
						line(report.verdict, 'title'),
						line(`${vehicleName}, ${nickname} · ${plate}`),
						...when(vehicle !== null, () => [
							line(`${vehicle?.vin ?? ''}, ${(vehicle?.odometerKm ?? 0).toLocaleString('en-GB')} km`)
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

const complaintLine = ({ complaint }: CaseReport): string =>
	complaint.words ? `“${complaint.words}”` : 'No complaint is written down.';

function repairs(report: CaseReport): Content[] {
	if (report.repairs.length === 0) return [line('No repair is written down.')];
	return report.repairs.flatMap(({ title, where, temporary, parts, note, checked }) => [
		strong(
			`${title}${where ? `, ${where}` : ''}${temporary ? ' (temporary: it has to be done again)' : ''}.`
		),
		...parts.map(({ name, number, grade }) =>
			line(`Fitted: ${name}${number ? `, ${number}` : ''} (${grade}).`)
		),
		...when(checked !== null, () => [line(`${checked ?? ''}.`)]),
		...when(note !== '', () => [line(note, 'quiet')])
	]);
}

const signature = (report: CaseReport): Content[] =>
	report.signature
		? [strong(report.signature.statement), line(`${report.signature.by}, ${paperDate(report.signature.at)}`)]
		: [line('Not signed.')];

/** The whole of it, for the next technician. */
export function technicianDocument(
	head: ReportHead,
	report: CaseReport,
	pictures: Pictures
): TDocumentDefinitions {
	return page(head, [
		...top(head, report),
		...when(report.open.length > 0, () => [heading('Not ready to be handed over'), list(report.open)]),
		heading('What brought it here'),
		line(complaintLine(report)),
		...when(report.complaint.lamps.length > 0, () => [line(`${report.complaint.lamps.join('; ')}.`)]),
		...when(report.complaint.prior.length > 0, () => [
			line(`Done before by others, and not taken as proven: ${report.complaint.prior.join(', ')}.`, 'quiet')
		]),
		...found(report),
		heading('What was done'),
		...repairs(report),
		...when(report.calibrations.length > 0, () => [
			heading('What its modules were told and taught'),
			list(
				report.calibrations.map(
					({ name, state, values, words }) =>
						`${name}: ${state}${values.length > 0 ? ` – ${values.join(', ')}` : ''}${words ? `. ${words}` : ''}`
				)
			)
		]),
		...codes(report),
		...network(report),
		...when(report.residual.length > 0, () => [heading('What is left of the risk'), list(report.residual)]),
		...when(report.waivers.length > 0, () => [heading('Let go by a lead'), list(report.waivers)]),
		...photos(report, pictures),
		heading('Cautions'),
		list(report.cautions),
		heading('Signature'),
		...signature(report),
		...evidence(report)
	]);
}

function found(report: CaseReport): Content[] {
	const { columns, rows } = report.grid;
	if (report.found.length === 0 && columns.length === 0) return [];
	return [
		heading('What was found, and how'),
		...report.found.map(({ title, detail, by }) => ({
			text: [...runsOf(`${title}. `), ...runsOf(`${detail} (${by})`).map((run) => ({ ...run, color: QUIET }))]
		})),
		...when(columns.length > 0, () => [
			{
				margin: [0, 6, 0, 0],
				table: {
					widths: [70, ...columns.map(() => 'auto')],
					body: [
						[cell(''), ...columns.map((column) => cell(column, 'small'))],
						...rows.map(({ where, cells }) => [
							cell(where),
							...cells.map((state) => mark(state) as TableCell)
						])
					]
				},
				layout: HAIR
			} as Content,
			line('Disc: proven good. Half disc: suspect. Ring: not tested.', 'small')
		])
	];
}

function codes(report: CaseReport): Content[] {
	const driven = report.drivenKm > 0 ? [line(`Driven to prove it: ${report.drivenKm.toFixed(1)} km.`)] : [];
	const lamps = report.lampCheck.length > 0 ? [line(`Lamps at key-on: ${report.lampCheck.join('; ')}.`)] : [];
	if (report.codes.length === 0)
		return [heading('Codes'), line('No module had a code.'), ...lamps, ...driven];
	const body = groupedCodes(report.codes).map((code): TableCell[] => [
		cell(code.text),
		{
			stack: [
				line(`${code.title}${code.failureType ? `, ${code.failureType}` : ''}`),
				line(code.modules.join(', '), 'quiet')
			]
		},
		{
			stack: [
				strong(code.words),
				...code.marks.map(({ name, state, words }) => ({
					columns: [
						{ width: 12, stack: [mark(state)], margin: [0, 2, 0, 0] as [number, number, number, number] },
						{ width: '*', text: [...runsOf(`${name}: `), ...runsOf(words)], fontSize: 8.5 }
					],
					columnGap: 3
				}))
			]
		}
	]);
	return [heading('Codes, and how far each is proven'), table([64, 165, '*'], body), ...lamps, ...driven];
}

function network({ beforeAfter }: CaseReport): Content[] {
	if (!beforeAfter) return [];
	const { modules, added, lamps, live } = beforeAfter;
	const side = (one: (typeof modules)[number]['after']): string =>
		one === null
			? 'not read again'
			: !one.answered
				? 'silent'
				: one.codes.length === 0
					? 'no code'
					: one.codes.map(({ text, status }) => `${text} (${status})`).join(', ');
	return [
		heading('Before and after, the whole network'),
		table(
			[120, '*', '*'],
			[
				[cell('Module', 'quiet'), cell('as it came', 'quiet'), cell('as it goes', 'quiet')],
				...modules.map(({ name, before, after }) => [cell(name), cell(side(before)), cell(side(after))]),
				...lamps.map(({ lamp, before, after }) => [
					cell(`${lamp} lamp`),
					cell(before),
					cell(after ?? 'not watched')
				]),
				...live.map(({ channel, before, after }) => [
					cell(`live: ${channel}`),
					cell(before.join('; ') || 'clean'),
					cell(after === null ? 'not recorded' : after.join('; ') || 'clean')
				])
			],
			1
		),
		...when(added.length > 0, () => [strong('New since'), list(added)])
	];
}

function photos(report: CaseReport, pictures: Pictures): Content[] {
	const shown = report.photos.flatMap(({ id, of }) => {
		const bytes = pictures.get(id);
		return bytes ? [{ of, image: `data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}` }] : [];
	});
	if (shown.length === 0) return [];
	return [
		heading('Pictures'),
		{
			columns: shown
				.slice(0, 3)
				.map(({ of, image }) => ({ stack: [{ image, fit: [155, 130] }, line(of, 'small')] })),
			columnGap: 10
		},
		...when(shown.length > 3, () => [
			{
				columns: shown
					.slice(3)
					.map(({ of, image }) => ({ stack: [{ image, fit: [155, 130] }, line(of, 'small')] })),
				columnGap: 10
			} as Content
		])
	];
}

function evidence(report: CaseReport): Content[] {
	const { evidence: entries, chainBroken } = report;
	return [
		heading('Evidence'),
		line(
			`${entries.length} entries, each carrying the hash of the one before; ${chainBroken ? `the chain is broken: ${chainBroken}` : 'the chain is intact'}.`,
			'quiet'
		),
		{
			fontSize: 8,
			...(table(
				[20, '*', 150, 92],
				entries.map(({ seq, title, detail, at, by, hash, superseded }) => [
					cell(String(seq)),
					{
						text: runsOf(`${title}. ${detail}`),
						...(superseded ? { decoration: 'lineThrough' as const } : {})
					},
					cell(`${paperDate(at)}, ${by}`),
					cell(hash.slice(0, 16))
				])
			) as object)
		} as Content
	];
}

/** One page in plain words, for whoever owns the vehicle. */
export function customerDocument(head: ReportHead, report: CaseReport): TDocumentDefinitions {
	const settled = report.codes.filter(({ verdict }) => verdict === 'proven-clear').length;
	const how = [
		settled > 0
			? `${settled === 1 ? 'One fault code was' : `${settled} fault codes were`} read, cleared after the repair, and tested again by the vehicle itself without coming back.`
			: '',
		report.lampCheck.length > 0 ? `The lamps at key-on: ${report.lampCheck.join('; ')}.` : '',
		report.drivenKm > 0 ? `It was driven ${report.drivenKm.toFixed(1)} km to prove it.` : ''
	].filter(Boolean);
	const MOST = 6;
	// What only follows from another fault is no news to whoever owns it.
	const faults = groupedCodes(report.codes.filter(({ follows }) => !follows)).map(
		({ text, title, failureType }) => `${title}${failureType ? `, ${failureType}` : ''} (${text}).`
	);
	return page(head, [
		...top(head, report),
		heading('What you told us'),
		line(complaintLine(report)),
		...when(faults.length > 0, () => [heading('What the vehicle had stored'), list(faults.slice(0, MOST))]),
		heading('What we did'),
		...repairs({ ...report, repairs: report.repairs.slice(0, MOST) }),
		...when(report.calibrations.length > 0, () => [
			line(`Set up anew: ${report.calibrations.map(({ name, state }) => `${name} (${state})`).join(', ')}.`)
		]),
		heading('How we know'),
		...(how.length > 0 ? [list(how)] : [line('It is not proven yet.')]),
		...when(report.residual.length + report.waivers.length + report.open.length > 0, () => [
			heading('What you should know'),
			list([...report.open, ...report.residual, ...report.waivers].slice(0, MOST))
		]),
		...when(report.cautions.length > 1, () => [list(report.cautions.slice(0, -1))]),
		heading('Signed'),
		...signature(report),
		line('The square above leads to this case on the workshop’s own server.', 'quiet')
	]);
}
