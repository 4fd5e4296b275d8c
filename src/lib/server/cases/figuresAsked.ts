import { error } from '@sveltejs/kit';
import { addDays } from 'date-fns/addDays';
import { format } from 'date-fns/format';
import { startOfDay } from 'date-fns/startOfDay';
import { startOfMonth } from 'date-fns/startOfMonth';
import { startOfYear } from 'date-fns/startOfYear';
import { subDays } from 'date-fns/subDays';
import { z } from 'zod';
import { maySign, type Member } from '../accounts/members';
import type { Within } from '../db/shopFigures';

export const SPANS = ['ever', 'month', '90-days', 'year', 'days'] as const;
export type Span = (typeof SPANS)[number];

/** Of which time, and of whom, figures are asked for, by the address. */
export interface FiguresAsked {
	span: Span;
	/** Days as they are typed, first and last; empty where the span is no days. */
	from: string;
	to: string;
	/** Account; empty = everybody. */
	by: string;
}

const Day = z.iso.date();

export function figuresAsked({ searchParams }: URL): FiguresAsked {
	const day = (name: string) => Day.safeParse(searchParams.get(name)).data ?? '';
	const [from, to] = [day('from'), day('to')];
	const span = SPANS.find((one) => one === searchParams.get('span')) ?? 'ever';
	return {
		span: span === 'days' && from === '' && to === '' ? 'ever' : span,
		from,
		to,
		by: searchParams.get('by') ?? ''
	};
}

const DAYS_90 = 90;

/** From when on a span counts, by the shop's clock; null = from the first case. */
function beginOf({ span, from }: FiguresAsked, now: Date): Date | null {
	switch (span) {
		case 'ever':
			return null;
		case 'month':
			return startOfMonth(now);
		case '90-days':
			return startOfDay(subDays(now, DAYS_90));
		case 'year':
			return startOfYear(now);
		case 'days':
			return from === '' ? null : startOfDay(new Date(`${from}T00:00`));
	}
}

/**
 * What is counted for whoever asks: of somebody else alone it is for leads. Throws a 403 with the sentence.
 *
 * @param now by the shop's clock
 */
export function withinAsked(asked: FiguresAsked, member: Member | null, now = new Date()): Within {
	if (asked.by !== '' && asked.by !== member?.id && !(member && maySign(member)))
		error(403, 'What one person has done is for them and for leads.');
	const end =
		asked.span === 'days' && asked.to !== '' ? addDays(startOfDay(new Date(`${asked.to}T00:00`)), 1) : null;
	return {
		from: beginOf(asked, now)?.toISOString() ?? null,
		before: end?.toISOString() ?? null,
		by: asked.by === '' ? null : asked.by
	};
}

/** The span as it is said. */
export function spanWords({ span, from, to }: FiguresAsked, now = new Date()): string {
	const day = (text: string) => format(new Date(`${text}T00:00`), 'd MMMM yyyy');
	switch (span) {
		case 'ever':
			return 'since the first case';
		case 'month':
			return format(now, "'in' MMMM yyyy");
		case '90-days':
			return 'in the last 90 days';
		case 'year':
			return format(now, "'in' yyyy");
		case 'days':
			return [from === '' ? '' : `from ${day(from)}`, to === '' ? '' : `until ${day(to)}`]
				.filter(Boolean)
				.join(' ');
	}
}
