import { format } from 'date-fns/format';
import { isSameDay } from 'date-fns/isSameDay';

/** The one way times are shown: the shop's clock; the day too when it is not today. */
export function clock(iso: string, now = new Date()): string {
	const moment = new Date(iso);
	return isSameDay(moment, now) ? format(moment, 'HH:mm') : format(moment, 'd MMM HH:mm');
}

/** A day, where the hour says nothing. */
export const dayOf = (iso: string): string => format(new Date(iso), 'd MMMM yyyy');

/** The one way dates stand on paper. */
export const paperDate = (iso: string): string => format(new Date(iso), 'd MMMM yyyy, HH:mm');
