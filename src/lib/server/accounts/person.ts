import { z } from 'zod';

export const LEAST_PASSWORD = 8;
export const SHORTEST_USERNAME = 2;
export const LONGEST_USERNAME = 30;
export const USERNAME = new RegExp(`^[a-z0-9._-]{${SHORTEST_USERNAME},${LONGEST_USERNAME}}$`);

export const Password = z
	.string()
	.min(LEAST_PASSWORD, `A password has ${LEAST_PASSWORD} signs or more.`)
	.max(128, 'A password has 128 signs or fewer.');

/** What an account is made of, whoever makes it. */
export const Person = z.object({
	username: z
		.string()
		.regex(
			USERNAME,
			`A user name is ${SHORTEST_USERNAME} to ${LONGEST_USERNAME} small letters, digits, dots or dashes.`
		),
	name: z.string().trim().min(1, 'A name, as it stands on the thread.').max(80),
	password: Password
});
