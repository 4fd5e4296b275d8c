/** `axle1_left` → `Axle 1 left`, `front_left` → `Front left`, `rear` → `Rear axle`. */
export function wheelWords(channel: string): string {
	const words = channel
		.replace(/^axle(\d)_?/, 'axle $1 ')
		.replace('_', ' ')
		.trim();
	const whole =
		channel === 'left' || channel === 'right'
			? `the ${channel} side`
			: channel.includes('_')
				? words
				: /^axle/.test(channel)
					? words
					: `the ${words} axle`;
	return whole.charAt(0).toUpperCase() + whole.slice(1);
}

/** `12.4 km/h`, `63 km/h`. */
export const kmhWords = (kmh: number): string => `${kmh.toFixed(kmh < 20 ? 1 : 0)} km/h`;
