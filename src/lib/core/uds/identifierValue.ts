/** How an identifier's bytes become a value: the part of its description that the arithmetic needs. */
export type ValueRule =
	| { as: 'text'; bytes: number }
	| {
			as: 'number' | 'signed';
			bytes: number;
			scale: number;
			/** Added after the scale. */
			offset?: number;
			unit: string;
			decimals: number;
			invalid?: string;
	  };

export type DecodedValue =
	| { kind: 'text'; text: string }
	| { kind: 'number'; value: number; unit: string; text: string }
	| { kind: 'not-available' }
	| { kind: 'wrong-length'; expectedBytes: number };

/** Raw hex of an identifier → value in its unit. Big-endian, as ISO 14229-1 sends it. */
export function decodeIdentifier(rule: ValueRule, raw: string): DecodedValue {
	// How long a text is each maker decides: the rule only says how long it usually is.
	if (rule.as !== 'text' && raw.length !== rule.bytes * 2)
		return { kind: 'wrong-length', expectedBytes: rule.bytes };
	const bytes = (raw.match(/../g) ?? []).map((pair) => parseInt(pair, 16));
	if (rule.as === 'text') {
		const text = bytes.map((byte) => (byte >= 0x20 && byte < 0x7f ? String.fromCharCode(byte) : '')).join('');
		return { kind: 'text', text: text.trim() };
	}
	if (rule.invalid === raw) return { kind: 'not-available' };
	const unsigned = bytes.reduce((sum, byte) => sum * 256 + byte, 0);
	const range = 2 ** (8 * rule.bytes);
	const counts = rule.as === 'signed' && unsigned >= range / 2 ? unsigned - range : unsigned;
	const value = counts * rule.scale + (rule.offset ?? 0);
	return {
		kind: 'number',
		value,
		unit: rule.unit,
		text: `${value.toFixed(rule.decimals)} ${rule.unit}`.trim()
	};
}

/** Value in its unit → raw hex, the inverse of {@link decodeIdentifier}; clamped to what the bytes can hold. */
export function encodeIdentifier(rule: ValueRule, value: number | string | null): string {
	if (rule.as === 'text') {
		const text = String(value ?? '')
			.padEnd(rule.bytes, ' ')
			.slice(0, rule.bytes);
		return [...text].map((sign) => toHex(sign.charCodeAt(0) & 0x7f, 1)).join('');
	}
	if (value === null) return rule.invalid ?? toHex(0, rule.bytes);
	const range = 2 ** (8 * rule.bytes);
	const [low, high] =
		rule.as === 'signed' ? [-range / 2, range / 2 - 1] : [0, range - (rule.invalid ? 2 : 1)];
	const counts = Math.min(high, Math.max(low, Math.round((Number(value) - (rule.offset ?? 0)) / rule.scale)));
	return toHex(counts < 0 ? counts + range : counts, rule.bytes);
}

const toHex = (value: number, bytes: number) =>
	value
		.toString(16)
		.toUpperCase()
		.padStart(bytes * 2, '0');
