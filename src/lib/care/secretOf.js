import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * The secret of a data folder, made when it is first needed. Plain JavaScript: it is also wanted before anything is built.
 *
 * @param {string} data the folder, made readable by its own account alone where there is none
 * @returns {string}
 */
export function secretOf(data) {
	mkdirSync(data, { recursive: true, mode: 0o700 });
	const file = join(data, 'secret');
	if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
	return readFileSync(file, 'utf8').trim();
}
