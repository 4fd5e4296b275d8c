/** 749.3 Ω, 1.24 kΩ, over the range: as a person would say a reading. */
export function valueWords(value: number | null, quantity: 'V' | 'Ω'): string {
	if (value === null) return 'over the range';
	const size = Math.abs(value);
	if (quantity === 'V')
		return size < 0.1 ? `${(value * 1000).toFixed(0)} mV` : `${value.toFixed(size < 10 ? 2 : 1)} V`;
	if (size >= 1e6) return `${(value / 1e6).toPrecision(3)} MΩ`;
	if (size >= 1e4) return `${(value / 1e3).toPrecision(3)} kΩ`;
	return `${size >= 100 ? value.toFixed(0) : value.toPrecision(3)} Ω`;
}

/** `0.64 to 1.93 V`, `above 1 MΩ`. */
export function windowWords(
	{ low, high }: { low: number; high: number | null },
	quantity: 'V' | 'Ω'
): string {
	if (high === null || high === Infinity) return `above ${valueWords(low, quantity)}`;
	if (low <= 0 && quantity === 'Ω') return `below ${valueWords(high, quantity)}`;
	return `${valueWords(low, quantity)} to ${valueWords(high, quantity)}`;
}
