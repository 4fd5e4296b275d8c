import type { SourcedDefinition } from './codes';

/** What a network code says of another module. */
export interface Accusation {
	/** Role of the module that sends, or should. */
	sender: string;
	says: 'missing' | 'invalid';
}

/** Lost communication with another module (SAE J2012-DA): U01xx and U02xx. */
const LOST = /^U0[12]/;
/** Software that does not fit: it is about how the module itself is set up, and not about what another sends. */
const SOFTWARE = /^U03/;

/** Whom a code accuses of what; null for one that is about its own module. */
export function accusationIn(
	code: string,
	source: Pick<SourcedDefinition, 'sender'> | null
): Accusation | null {
	if (!source?.sender || SOFTWARE.test(code)) return null;
	return { sender: source.sender, says: LOST.test(code) ? 'missing' : 'invalid' };
}
