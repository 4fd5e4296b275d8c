const MIN_PER_HOUR = 60;
const MS_PER_MIN = 60_000;

export const hourWords = (minutes: number): string => {
	const rounded = minutes < MIN_PER_HOUR ? Math.round(minutes / 5) * 5 : Math.round(minutes / 10) * 10;
	const hours = Math.floor(rounded / MIN_PER_HOUR);
	const rest = rounded % MIN_PER_HOUR;
	return [hours > 0 ? `${hours} h` : null, rest > 0 || hours === 0 ? `${rest} min` : null]
		.filter(Boolean)
		.join(' ');
};

/** From when to when a shop works, hours of its own clock. */
export interface DaysWork {
	opens: number;
	closes: number;
}

const atHour = (day: Date, hour: number): Date => {
	const at = new Date(day);
	at.setHours(Math.floor(hour), Math.round((hour % 1) * MIN_PER_HOUR), 0, 0);
	return at;
};

/** When work goes on today: now, or when the shop opens. */
export const worksFrom = (now: Date, { opens }: DaysWork): Date =>
	new Date(Math.max(now.getTime(), atHour(now, opens).getTime()));

/** Minutes of work left on a day, by the shop's clock; none after closing. */
export const minutesLeft = (now: Date, hours: DaysWork): number =>
	Math.max(0, (atHour(now, hours.closes).getTime() - worksFrom(now, hours).getTime()) / MS_PER_MIN);
