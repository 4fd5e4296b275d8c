import type { Column, Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { RingSeen } from '../../case/paper/beforeAfter';
import type { KeyTrace } from '../../case/paper/keyTraces';
import { groupedCodes, type CaseReport } from '../../case/paper/report';
import { lowerFirst, upperFirst } from '../../case/words';
import { inUnits, quantity, type Units } from '../../core/units/units';
import { drawRing } from '../../core/scope/ringDrawing';
import { paperDate } from '../cases/clock';
import {
	byLamp,
	cell,
	complaintLine,
	cost,
	heading,
	line,
	list,
	mark,
	page,
	repairs,
	signature,
	unproven,
	strong,
	table,
	top,
	when,
	HAIR,
	type ReportHead
} from './parts';
import { ringSvg, type TraceDrawing } from './drawings';
import { QUIET } from './inks';
import { runsOf } from './runs';

/** What is kept beside the thread and shown on paper. */
export interface Pictures {
	/** By id, as JPEG. */
	photos: ReadonlyMap<string, Uint8Array>;
	traces: readonly { trace: KeyTrace; drawing: TraceDrawing }[];
}

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
		...report.complaint.answers.map((answer) => line(`${answer}.`)),
		...when(report.complaint.prior.length > 0, () => [
			line(`Done before by others, and not taken as proven: ${report.complaint.prior.join(', ')}.`, 'quiet')
		]),
		...found(report),
		...when(report.foundGood.length > 0, () => [
			heading('Tested, and as it should be'),
			list(report.foundGood.map(({ title, detail, by }) => `${title}. ${detail} (${by})`))
		]),
		...traces(pictures, head.units),
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
		...cost(report),
		...codes(report, head.units),
		...network(report),
		...when(report.residual.length > 0, () => [heading('What is left of the risk'), list(report.residual)]),
		...when(report.waivers.length > 0, () => [heading('Let go by a lead'), list(report.waivers)]),
		...photos(report, pictures),
		...unproven(report),
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

function codes(report: CaseReport, units: Units): Content[] {
	const driven =
		report.drivenKm > 0
			? [line(`Driven to prove it: ${quantity(report.drivenKm, 'distance', units, 1)}.`)]
			: [];
	const lamps = report.lampCheck.length > 0 ? [line(`Lamps at key-on: ${report.lampCheck.join('; ')}.`)] : [];
	if (report.codes.length === 0) return [heading('Codes'), ...byLamp(report), ...lamps, ...driven];
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

function network(report: CaseReport): Content[] {
	const { beforeAfter } = report;
	if (!beforeAfter) return [];
	const { modules, added, lamps, seen } = beforeAfter;
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
				...seen.map(({ what, before, after }) => [
					cell(what),
					cell(before.join('; ') || 'clean'),
					cell(after === null ? 'not looked at since' : after.join('; ') || 'clean')
				])
			],
			1
		),
		...when(added.length > 0, () => [strong('New since'), list(added)]),
		...rings(report)
	];
}

/** What a wheel did, before and after, over time. */
function traces(pictures: Pictures, units: Units): Content[] {
	if (pictures.traces.length === 0) return [];
	return [
		heading('What the wheels did'),
		...pictures.traces.map(({ trace, drawing }) => ({
			unbreakable: true,
			margin: [0, 4, 0, 6] as [number, number, number, number],
			stack: [
				{ text: [...runsOf(`${upperFirst(trace.side)}: `), ...runsOf(trace.words)] },
				{ svg: drawing.svg, width: 480 },
				line(inUnits(drawing.words, units), 'small')
			]
		}))
	];
}

/** Rings as the oscilloscope saw them, side by side. */
function rings({ beforeAfter }: CaseReport): Content[] {
	const shown = (beforeAfter?.seen ?? []).filter(({ rings: { before, after } }) => before ?? after);
	return shown.map(({ what, rings: { before, after } }) => ({
		unbreakable: true,
		margin: [0, 8, 0, 0] as [number, number, number, number],
		stack: [
			strong(`${upperFirst(what)}, its ring`),
			{ columns: [ring('As it came', before), ring('As it goes', after)], columnGap: 12 }
		]
	}));
}
const ring = (side: string, seen: RingSeen | null): Column => ({
	width: '*',
	stack: seen
		? [
				{ svg: ringSvg(seen), width: 150 },
				line(`${side}: ${lowerFirst(drawRing(seen.ring, seen.marked).says)}.`, 'small')
			]
		: [line(`${side}: no capture of a whole turn.`, 'small')]
});

function photos(report: CaseReport, pictures: Pictures): Content[] {
	const shown = report.photos.flatMap(({ id, of }) => {
		const bytes = pictures.photos.get(id);
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
