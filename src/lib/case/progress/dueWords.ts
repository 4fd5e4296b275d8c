import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { format } from 'date-fns/format';

/** Within so many days a weekday says which day is meant. */
const A_WEEK = 7;

/** A moment that something is promised for, by the clock of whoever shows it: "today 15:30", "Sat 12:00", "12 Dec 17:00". */
export function dueWords(due: Date, now: Date): string {
	const days = differenceInCalendarDays(due, now);
	const day =
		days === 0
			? 'today'
			: days === 1
				? 'tomorrow'
				: days === -1
					? 'yesterday'
					: format(due, days > 0 && days < A_WEEK ? 'EEE' : 'd MMM');
	return `${day} ${format(due, 'HH:mm')}`;
}
