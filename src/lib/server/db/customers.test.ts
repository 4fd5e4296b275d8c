import { ulid } from 'ulid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { answer } from '../../case/codes/answerText';
import { AdminLog } from '../accounts/adminLog';
import { actWords } from '../accounts/adminWords';
import { openTestShop, put, type TestShop } from '../shop.fixture';
import { CustomerValues, emptyCustomer } from './customers';

let shop: TestShop;
const someone = (change: Partial<CustomerValues> = {}) => ({
	...emptyCustomer(),
	name: 'Saltmarsh Dairy',
	phone: '01632 560 137',
	...change
});
beforeEach(async () => {
	shop = await openTestShop();
});
afterEach(() => shop.close());

describe('a customer', () => {
	it('is written down once, however often the page sends it', async () => {
		const id = ulid();
		await shop.customers.add(id, someone());
		await shop.customers.add(id, someone({ name: 'Somebody else' }));
		expect(await shop.customers.page(1)).toMatchObject({ total: 1, rows: [{ name: 'Saltmarsh Dairy' }] });
		expect(await shop.customers.search('somebody', 5)).toEqual([]);
	});

	it('is changed with what it was kept, and by whoever saw it as it is', async () => {
		const { id } = await shop.customers.add(ulid(), someone());
		expect(await shop.customers.change(id, 1, someone({ phone: '01632 560 138' }), shop.ana)).toMatchObject({
			ok: true
		});
		// Two people had the same page open: the second has not seen the first one's number.
		const late = await shop.customers.change(id, 1, someone({ phone: '01632 999 999' }), shop.ana);
		expect(late).toMatchObject({ ok: false, error: expect.stringContaining('meanwhile') });
		expect(await shop.customers.find(id)).toMatchObject({ phone: '01632 560 138', version: 2 });
		expect(await shop.customers.search('999999', 5)).toEqual([]);
		const past = await shop.customers.past(id);
		expect(past).toMatchObject([{ by: 'Ana', was: { name: 'Saltmarsh Dairy', phone: '01632 560 137' } }]);
		// Saved without a change, nothing is kept of it.
		await shop.customers.change(id, 2, someone({ phone: '01632 560 138' }), shop.ana);
		expect(await shop.customers.past(id)).toHaveLength(1);
		expect(await shop.customers.change(ulid(), 1, someone(), shop.ana)).toMatchObject({ ok: false });
	});

	it.each([
		['dairy', true],
		['saltmarsh dai', true],
		['560137', true],
		['01632 560 137', true],
		['saltmrash', true],
		['harbour', false]
	])('is found by any part of what they are called and reached by: “%s” %s', async (text, found) => {
		await shop.customers.add(ulid(), someone());
		expect(await shop.customers.search(text, 5)).toHaveLength(found ? 1 : 0);
	});

	it('is found by the new name after a change, and no more by the old', async () => {
		const { id } = await shop.customers.add(ulid(), someone());
		await shop.customers.change(id, 1, someone({ name: 'Harbour Creamery' }), shop.ana);
		expect(await shop.customers.search('creamery', 5)).toHaveLength(1);
		expect(await shop.customers.search('saltmarsh', 5)).toEqual([]);
	});

	it('stands in what the decoder answers', async () => {
		await shop.customers.add(ulid(), someone());
		const { found } = await answer(shop.codes, shop.cases, 'saltmarsh', null, shop.customers);
		expect(found).toMatchObject([{ group: 'customer', text: 'Saltmarsh Dairy', title: '01632 560 137' }]);
	});

	it('who asks to be forgotten is taken out whole; the case stays, and names nobody', async () => {
		const { id, number } = await shop.customers.add(ulid(), someone());
		await shop.customers.change(id, 1, someone({ email: 'round@dairy.example' }), shop.ana);
		await put(shop, 'case-opened', { vehicleId: 'v', typeId: 't', name: 'a van', plate: '' });
		await put(shop, 'customer', { customer: id });
		await shop.cases.refresh(shop.caseId);
		expect((await shop.cases.ofCustomer(id, 5)).map((row) => row.id)).toEqual([shop.caseId]);

		await shop.customers.forget(id, shop.ana);
		expect(await shop.customers.find(id)).toBeNull();
		expect(await shop.customers.past(id)).toEqual([]);
		expect(await shop.customers.search('dairy', 5)).toEqual([]);
		expect(JSON.stringify(await shop.threads.read(shop.caseId))).not.toContain('Dairy');
		const [act] = (await new AdminLog(shop.db).page()).rows;
		expect(act && actWords(act)).toBe(`took out the customer of number ${number}`);
		// Forgotten twice is forgotten.
		await shop.customers.forget(id, shop.ana);
		expect((await new AdminLog(shop.db).page()).rows).toHaveLength(1);
	});

	it('is listed by name, a page at a time, and a page beyond the last is the last', async () => {
		for (let nth = 0; nth < 53; nth++)
			await shop.customers.add(
				ulid(),
				someone({ name: `${nth % 2 ? 'a' : 'B'} ${String(nth).padStart(2, '0')}` })
			);
		const last = await shop.customers.page(9);
		expect(last).toMatchObject({ page: 2, pages: 2, total: 53 });
		expect(last.rows.map(({ name }) => name)).toEqual(['B 48', 'B 50', 'B 52']);
	});

	it.each([
		[{ name: ' ' }, 'name'],
		[{ phone: 'call the baker' }, 'phone'],
		[{ email: 'round@' }, 'email']
	])('is refused with the field that is wrong: %o', (wrong, field) => {
		const read = CustomerValues.safeParse(someone(wrong));
		expect(read.error?.issues[0]?.path).toEqual([field]);
	});
});

describe('a vehicle', () => {
	const called = { nickname: 'bread van', plate: 'TPI 77', vin: null };

	it('is renamed with what it was kept; its cases are found by both names', async () => {
		const [known] = await shop.vehicles.newest();
		const id = known?.id ?? '';
		const opened = { vehicleId: id, typeId: 'brindle-marlow-16', name: 'school minibus', plate: 'TP 16' };
		await put(shop, 'case-opened', opened);
		await shop.cases.refresh(shop.caseId);
		expect(await shop.vehicles.rename(id, 1, called, shop.ana)).toMatchObject({ ok: true });
		await shop.cases.refresh(shop.caseId);
		for (const text of ['bread van', 'tpi77', 'school minibus', 'tp 16'])
			expect(await shop.cases.named(text, 5), text).toHaveLength(1);
		expect(await shop.vehicles.past(id)).toMatchObject([
			{ was: { nickname: 'school minibus', plate: 'TP 16' } }
		]);
		const late = await shop.vehicles.rename(id, 1, { ...called, plate: 'X' }, shop.ana);
		expect(late).toMatchObject({ ok: false, error: expect.stringContaining('meanwhile') });
		expect(await shop.vehicles.find(id)).toMatchObject({ ...called, version: 2 });
	});

	it('remembers who brought it in last', async () => {
		const [known] = await shop.vehicles.newest();
		const id = known?.id ?? '';
		expect(await shop.vehicles.lastCustomerOf(id)).toBeNull();
		const customer = (await shop.customers.add(ulid(), someone())).id;
		await put(shop, 'customer', { customer });
		await shop.cases.refresh(shop.caseId);
		expect(await shop.vehicles.lastCustomerOf(id)).toBe(customer);
	});
});
