import { createHash, randomBytes, randomInt } from 'node:crypto';

/** Letters and digits that nobody takes for another. */
const SIGNS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const GROUPS = 3;
const GROUP_SIGNS = 4;
const TOKEN_BYTES = 32;
export const TOKEN_BEGINS = 'jaldi_';

/** A code that a person can read out and type: 59 bits. */
export const newCode = (): string =>
	Array.from({ length: GROUPS }, () =>
		Array.from({ length: GROUP_SIGNS }, () => SIGNS[randomInt(SIGNS.length)]).join('')
	).join('-');

/** As typed by a person: capitals, dashes and spaces do not matter. */
export const plainCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** A token for a program: 256 bits. */
export const newToken = (): string => TOKEN_BEGINS + randomBytes(TOKEN_BYTES).toString('base64url');

/** What is kept of a code or token: made at random and long, so that one round of SHA-256 is enough. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
