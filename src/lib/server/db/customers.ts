import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import { actOf } from '../accounts/adminLog';
import type { Database } from './open';
import { forgettingPast, keepingPast, pastOf, type PastRecord } from './recordPast';
import { adminAct, customer } from './schema';
import type { Author } from './threads';
import { byNames, plain, signsOf } from './trigrams';

export const CONSENTS = ['job', 'reminders', 'nothing'] as const;

/** What is known of a customer. Whatever is not known is empty. */
export const CustomerValues = z.object({
	name: z.string().trim().min(1, 'What is their name?').max(120),
	phone: z
		.string()
		.trim()
		.max(60)
		.regex(/^[+\d\s()/.\-–;,ext]*$/i, 'Digits, spaces and + alone.'),
	email: z.union([z.literal(''), z.email('That is no e-mail address.').max(200)]),
	address: z.string().trim().max(300),
	note: z.string().trim().max(1000),
	consent: z.enum(CONSENTS),
	consentHow: z.string().trim().max(200)
});
export type CustomerValues = z.output<typeof CustomerValues>;
export type Customer = typeof customer.$inferSelect;

export interface FoundCustomer {
	id: string;
	name: string;
	phone: string;
	email: string;
}

export const emptyCustomer = (): CustomerValues => ({
	name: '',
	phone: '',
	email: '',
	address: '',
	note: '',
	consent: 'job',
	consentHow: ''
});

const namesOf = ({ name, phone, email }: CustomerValues): string =>
	plain([name, phone, signsOf(phone), email].filter(Boolean).join(' '));

const PAGE = 50;

/** Whoever brings vehicles in. Their data are here alone: threads have their ids. */
export class Customers {
	constructor(private readonly db: Database) {}

	async find(id: string): Promise<Customer | null> {
		const [found] = await this.db.select().from(customer).where(eq(customer.id, id));
		return found ?? null;
	}

	/** By name, a page at a time. A page beyond the last is the last. */
	async page(wanted: number): Promise<{ rows: Customer[]; total: number; page: number; pages: number }> {
		const [count] = await this.db.select({ n: sql<number>`count(*)` }).from(customer);
		const total = count?.n ?? 0;
		const pages = Math.max(1, Math.ceil(total / PAGE));
		const page = Math.min(pages, Math.max(1, wanted));
		const rows = await this.db
			.select()
			.from(customer)
			.orderBy(sql`${customer.name} COLLATE NOCASE`, customer.number)
			.limit(PAGE)
			.offset((page - 1) * PAGE);
		return { rows, total, page, pages };
	}

	/** Adds one under an id made by the client; sent twice, it is one. */
	async add(id: string, values: CustomerValues, now = new Date()): Promise<Customer> {
		await this.db.batch([
			this.db
				.insert(customer)
				.values({ id, ...values, names: namesOf(values), createdAt: now.toISOString() })
				.onConflictDoNothing({ target: customer.id }),
			this.indexing(id)
		]);
		return (await this.find(id)) as Customer;
	}

	/** @param version the one that whoever changes it has seen */
	async change(
		id: string,
		version: number,
		values: CustomerValues,
		by: Author,
		now = new Date()
	): Promise<Result<null>> {
		const known = await this.find(id);
		if (!known) return fail('There is no such customer any more.');
		if ((Object.keys(values) as (keyof CustomerValues)[]).every((name) => known[name] === values[name]))
			return ok(null);
		const [, changed] = await this.db.batch([
			keepingPast(this.db, 'customer', id, version, by, now),
			this.db
				.update(customer)
				.set({ ...values, names: namesOf(values), version: version + 1 })
				.where(and(eq(customer.id, id), eq(customer.version, version))),
			this.indexing(id)
		]);
		return changed.rowsAffected > 0
			? ok(null)
			: fail('Somebody else has changed this customer meanwhile: load the page again.');
	}

	async past(id: string): Promise<PastRecord[]> {
		return pastOf(this.db, 'customer', id);
	}

	/** Takes a customer out whole, with all they were before. Threads keep an id that is nobody's. */
	async forget(id: string, by: Author): Promise<void> {
		const known = await this.find(id);
		if (!known) return;
		await this.db.batch([
			this.db.run(sql`DELETE FROM customer_names WHERE rowid = ${known.number}`),
			forgettingPast(this.db, 'customer', id),
			this.db.delete(customer).where(eq(customer.id, id)),
			// Who it was is what must not stay.
			this.db
				.insert(adminAct)
				.values(actOf(by, 'customer-forgotten', { of: `the customer of number ${known.number}` }))
		]);
	}

	/** By any part of a name, a number or an address, also with a slip in a longer word. */
	async search(text: string, limit: number): Promise<FoundCustomer[]> {
		const found = await byNames(text, limit, (match, most) =>
			this.db.all<FoundCustomer & { names: string }>(sql`
				SELECT c.id, c.name, c.phone, c.email, n.names
				FROM customer_names n JOIN customer c ON c.number = n.rowid
				WHERE n.names MATCH ${match} ORDER BY n.rowid DESC LIMIT ${most}`)
		);
		return found.map(({ id, name, phone, email }) => ({ id, name, phone, email }));
	}

	/** What brings the index up to what stands, to be run after the write in the same batch. */
	private indexing(id: string) {
		return this.db.run(sql`
			INSERT OR REPLACE INTO customer_names (rowid, names)
			SELECT number, names FROM customer WHERE id = ${id}`);
	}
}
