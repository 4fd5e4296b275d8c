/**
 * Numbers from 0 up to 1 that a text decides: the same text, the same numbers (FNV-1a into a 32-bit xorshift; Marsaglia
 * 2003). For playing cases to their end, where the result shall not change with every look.
 */
export function randomFromText(text: string): () => number {
	let state = 2166136261;
	for (let i = 0; i < text.length; i++) state = Math.imul(state ^ text.charCodeAt(i), 16777619);
	state = state >>> 0 || 1;
	return () => {
		state ^= state << 13;
		state ^= state >>> 17;
		state ^= state << 5;
		state >>>= 0;
		return state / 2 ** 32;
	};
}
