import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { quantity } from '../../core/units/units';
import { groupedCodes, type CaseReport } from '../../case/paper/report';
import {
	complaintLine,
	cost,
	heading,
	line,
	list,
	page,
	repairs,
	signature,
	top,
	unproven,
	when,
	type ReportHead
} from './parts';

/** More of it does not fit beside all else that stands on one page. */
const MOST_FOUND = 3;
const PHOTO_FITS: [number, number] = [120, 90];

/** One page in plain words, for whoever owns the vehicle. */
export function customerDocument(
	head: ReportHead,
	report: CaseReport,
	/** The first photo, as a data address; null = none was taken. */
	photo: string | null = null
): TDocumentDefinitions {
	const settled = report.codes.filter(({ verdict }) => verdict === 'proven-clear').length;
	const how = [
		settled > 0
			? `${settled === 1 ? 'One fault code was' : `${settled} fault codes were`} read, cleared after the repair, and tested again by the vehicle itself without coming back.`
			: '',
		report.proven && (report.byLamp ?? []).length > 0
			? 'It was driven after the repair, and its lamp, read again, tells of no fault any more.'
			: '',
		report.lampCheck.length > 0 ? `The lamps at key-on: ${report.lampCheck.join('; ')}.` : '',
		report.drivenKm > 0
			? `It was driven ${quantity(report.drivenKm, 'distance', head.units, 1)} to prove it.`
			: ''
	].filter(Boolean);
	const closed = report.signature?.left ?? null;
	const open = closed ? [] : report.open;
	const MOST = 6;
	// What only follows from another fault is no news to whoever owns it.
	const faults = groupedCodes(report.codes.filter(({ follows }) => !follows)).map(
		({ text, title, failureType }) => `${title}${failureType ? `, ${failureType}` : ''} (${text}).`
	);
	return page(head, [
		...top(head, report),
		...unproven(report),
		heading('What you told us'),
		line(complaintLine(report)),
		...report.complaint.answers.map((answer) => line(`${answer}.`)),
		...when(faults.length > 0, () => [heading('What the vehicle had stored'), list(faults.slice(0, MOST))]),
		...when((report.byLamp ?? []).length > 0, () => [
			heading('What its lamp told'),
			list((report.byLamp ?? []).slice(0, MOST).map(({ code, words }) => `${words} (${code}).`))
		]),
		...when(report.foundPlain.length > 0, () => [
			heading('What was wrong'),
			{
				columns: [
					{
						width: '*',
						stack: [list(report.foundPlain.slice(-MOST_FOUND))]
					},
					...(photo ? [{ width: 'auto', stack: [{ image: photo, fit: PHOTO_FITS }] }] : [])
				],
				columnGap: 12
			}
		]),
		heading('What we did'),
		...repairs({ ...report, repairs: report.repairs.slice(0, MOST) }),
		...when(report.calibrations.length > 0, () => [
			line(`Set up anew: ${report.calibrations.map(({ name, state }) => `${name} (${state})`).join(', ')}.`)
		]),
		...cost(report),
		heading('How we know'),
		...(how.length > 0 ? [list(how)] : [line('It is not proven yet.')]),
		...when(report.residualPlain.length + report.waivers.length + open.length > 0, () => [
			heading('What you should know'),
			list([...open, ...report.residualPlain, ...report.waivers].slice(0, MOST))
		]),
		...when(report.cautions.length > 1, () => [list(report.cautions.slice(0, -1))]),
		heading('Signed'),
		...signature(report),
		line('The square above leads to this case on the workshop’s own server.', 'quiet')
	]);
}
