/** What the floor says of the time that a case still takes. */
export interface ToGo {
	/** "about 1 h 30 min". */
	words: string;
	/** Null after closing: then everything is tomorrow’s. */
	today: 'yes' | 'perhaps' | 'no' | null;
}

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

/** Finished today where eight in ten such cases are; perhaps where at least the quick ones are. */
export function toGoWords(
	outlook: { meanMinutes: number | null; lowMinutes: number | null; highMinutes: number | null } | null,
	minutesLeftToday: number
): ToGo | null {
	if (!outlook || outlook.meanMinutes === null || outlook.lowMinutes === null || outlook.highMinutes === null)
		return null;
	const { meanMinutes, lowMinutes, highMinutes } = outlook;
	// It waits for a signature: nobody is at work.
	if (highMinutes === 0) return null;
	const [low, high] = [hourWords(lowMinutes), hourWords(highMinutes)];
	return {
		words: `about ${hourWords(meanMinutes)}${low === high ? '' : ` (${low} to ${high})`}`,
		today:
			minutesLeftToday === 0
				? null
				: highMinutes <= minutesLeftToday
					? 'yes'
					: lowMinutes <= minutesLeftToday
						? 'perhaps'
						: 'no'
	};
}
