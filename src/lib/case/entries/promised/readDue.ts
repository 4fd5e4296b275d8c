import { en } from 'chrono-node';

/** A moment read out of words. */
export interface ReadDue {
	due: Date;
	/** Whether the words say an hour; else it is the end of that day's work. */
	hour: boolean;
}

/** What "in the morning" promises: by then. */
const MORNING_ENDS = 12;
/** Nobody is promised a vehicle in the small hours: "at 3" is in the afternoon. */
const DAY_BEGINS = 6;

function setHour(day: Date, hour: number): Date {
	const at = new Date(day);
	at.setHours(Math.floor(hour), Math.round((hour % 1) * 60), 0, 0);
	return at;
}

/**
 * Reads when something is promised, as people type it: "tomorrow 3pm", "fri noon", "12/10 16:00" (day first), "in two hours".
 * What lies behind is taken as what comes next.
 *
 * @param now also gives the time zone: that of whoever reads
 * @param closesAtHour when a day's work ends, for words that name a day and no hour
 * @returns null where the words name no moment
 */
export function readDue(words: string, now: Date, closesAtHour: number): ReadDue | null {
	const [found] = en.GB.parse(words, now, { forwardDate: true });
	if (!found) return null;
	const { start, text } = found;
	const day = start.date();
	if (!start.isCertain('hour'))
		return { due: setHour(day, /morning/i.test(text) ? MORNING_ENDS : closesAtHour), hour: false };
	const isSmall = !start.isCertain('meridiem') && day.getHours() < DAY_BEGINS;
	return { due: isSmall ? setHour(day, day.getHours() + 12 + day.getMinutes() / 60) : day, hour: true };
}
