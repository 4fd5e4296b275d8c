import type { ApiRoute } from '$lib/server/api/apiRoute';
import { figuresAsked, withinAsked } from '$lib/server/cases/figuresAsked';
import { csvOf } from '$lib/server/csv';
import { caseNumber } from '$lib/server/db/caseNumber';
import { typeName } from '$lib/server/db/cases';
import { estimatedMinutes, outcomeOf } from '$lib/server/db/shopFigures';

export const _api: ApiRoute = {
	GET: {
		says: 'The signed cases that the shop’s figures are counted from.',
		query: {
			span: 'ever, month, 90-days, year or days',
			from: 'first day, as 2026-11-01',
			to: 'last day',
			by: 'account of whoever did the last repair'
		},
		gives: { media: 'text/csv', says: 'One line a case, newest first.' }
	}
};

const HEADER = [
	'number',
	'vehicle',
	'type',
	'signed at',
	'outcome',
	'came back',
	'codes',
	'repair',
	'repaired by',
	'minutes by the timer',
	'minutes estimated'
];

export async function GET({ url, locals }) {
	const within = withinAsked(figuresAsked(url), locals.member);
	const cases = await locals.services.heavy.ask('signedCases', within);
	const rows = cases.map((one) => [
		caseNumber(one.number),
		one.nickname,
		typeName(one.typeId),
		one.signedAt,
		outcomeOf(one),
		one.cameBack ? 'yes' : 'no',
		(one.codes ?? '').replaceAll(',', ' '),
		one.repair ?? '',
		one.repairedBy ?? '',
		one.minutes ?? '',
		estimatedMinutes(one) ?? ''
	]);
	return new Response(csvOf(HEADER, rows), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': 'attachment; filename="jaldi-cases.csv"'
		}
	});
}
