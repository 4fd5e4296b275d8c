import { z } from 'zod';
import { isCodeId } from '../../core/codes/codeId';
import { LONGEST_OWN } from '../../core/codes/ownNotation';

/** Pieces that the payloads of entries are made of. */

/** Half of a character that needs two: no text, and nothing that can be hashed. */
export const BROKEN_CHARACTER = /\p{Surrogate}/u;
export const Text = z
	.string()
	.trim()
	.max(2000, 'That is longer than 2,000 characters: split it.')
	.refine((text) => !BROKEN_CHARACTER.test(text), 'It contains a broken character: type it again.');
export const Words = Text.min(1, 'Write at least a word.');
/** 26 signs of Crockford's base 32: what every case, entry, photo and capture is called by whoever makes it. */
const ULID_SIGNS = '[0-9A-HJKMNP-TV-Z]{26}';
export const Ulid = z
	.string()
	.regex(new RegExp(`^${ULID_SIGNS}$`), 'It is to be a ULID: 26 letters and digits.');
export { ULID_SIGNS };
/** An id of the library, of a module or of a vehicle. */
export const Id = z.string().max(60);
/** What a vehicle or a module says of itself, or what was said of it by us. */
export const Said = z.string().max(2000);
export const Hex = z.string().regex(/^([0-9A-F]{2})*$/);
export const Address = z.string().regex(/^[0-9A-F]{4}$/);
/** A code of ISO 14229 in bytes. */
export const Dtc = z.string().regex(/^[0-9A-F]{6}$/);
/** A code of any family, by its id. */
export const CodeId = z
	.string()
	.max(LONGEST_OWN + 1)
	.refine(
		isCodeId,
		'It is to be six hex digits, “SPN 789 FMI 5”, or an equals sign and the maker’s own code.'
	);
/** Id in the library's vocabulary. */
export const Chosen = z.string().max(40);
