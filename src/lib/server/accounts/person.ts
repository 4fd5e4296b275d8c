import { z } from 'zod';

const LEAST_PASSWORD = 8;

/** What an account is made of, whoever makes it. */
export const Person = z.object({
	username: z
		.string()
		.regex(/^[a-z0-9._-]{2,30}$/, 'A user name is 2 to 30 small letters, digits, dots or dashes.'),
	name: z.string().trim().min(1, 'A name, as it stands on the thread.').max(80),
	password: z
		.string()
		.min(LEAST_PASSWORD, `A password has ${LEAST_PASSWORD} signs or more.`)
		.max(128, 'A password has 128 signs or fewer.')
});
