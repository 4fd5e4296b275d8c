const MIN_PER_HOUR = 60;

export const hourWords = (minutes: number): string => {
	const rounded = minutes < MIN_PER_HOUR ? Math.round(minutes / 5) * 5 : Math.round(minutes / 10) * 10;
	const hours = Math.floor(rounded / MIN_PER_HOUR);
	const rest = rounded % MIN_PER_HOUR;
	return [hours > 0 ? `${hours} h` : null, rest > 0 || hours === 0 ? `${rest} min` : null]
		.filter(Boolean)
		.join(' ');
};

/** Minutes of work left on a day, by the shop's clock; none after closing. */
export const minutesLeft = (now: Date, closesAtHour: number): number =>
	Math.max(0, closesAtHour * MIN_PER_HOUR - (now.getHours() * MIN_PER_HOUR + now.getMinutes()));
