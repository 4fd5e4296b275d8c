import { ulid } from 'ulid';
import { expect, goTo, openCase, test } from './bay';
import { SIGNED_IN } from './where';

const note = (text: string, id = ulid()) => ({
	id,
	kind: 'note',
	version: 1,
	observedAt: new Date().toISOString(),
	payload: { text }
});

test('the other’s entries appear without a reload, and what one is typing stays', async ({ page, as }) => {
	await openCase(page, 'shared bus', '');
	await goTo(page, 'Mend');
	await page.getByLabel('Note for the thread').fill('half a thought');
	const other = await as('marit');
	await other.goto(page.url());
	await other.getByLabel('Note for the thread').fill('Feed measured at the far plug: 11.9 V');
	await other.getByRole('button', { name: 'Save the note' }).click();
	await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText(
		'Feed measured at the far plug'
	);
	await expect(page.getByLabel('Note for the thread')).toHaveValue('half a thought');
	await page.getByRole('button', { name: 'Save the note' }).click();
	await expect(other.getByRole('complementary', { name: 'Thread' })).toContainText('half a thought');
});

test('forty entries sent at once by two people all stand on one unbroken chain', async ({
	page,
	browser
}) => {
	await openCase(page, 'busy bus', '');
	const url = page.url().replace(/\/listen$/, '');
	const marit = await browser.newContext({ storageState: SIGNED_IN.marit });
	const sends = Array.from({ length: 40 }, (_, i) =>
		(i % 2 ? page.request : marit.request).post(`${url}/entries`, { data: note(`reading ${i}`) })
	);
	for (const response of await Promise.all(sends)) expect(response.status()).toBe(200);
	await goTo(page, 'Hand over');
	await expect(
		page.getByText('41 entries, each carrying the hash of the one before; the chain is intact.')
	).toBeVisible();
	await marit.close();
});

test('an entry sent twice is stored once, and another under its id is refused', async ({ page }) => {
	await openCase(page, 'echo bus', '');
	const entries = `${page.url().replace(/\/listen$/, '')}/entries`;
	const first = note('once');
	const one = await (await page.request.post(entries, { data: first })).json();
	const two = await (await page.request.post(entries, { data: first })).json();
	expect(two).toEqual(one);
	const other = await page.request.post(entries, { data: { ...first, payload: { text: 'twice' } } });
	expect(other.status()).toBe(409);
	expect((await page.request.post(entries, { data: note('half \ud83d') })).status()).toBe(400);
	expect((await page.request.post(entries, { data: note('x'.repeat(2001)) })).status()).toBe(400);
	const early = { ...note('from tomorrow'), observedAt: '2199-01-01T00:00:00.000Z' };
	expect((await page.request.post(entries, { data: early })).status()).toBe(400);
	expect((await page.request.post(entries, { data: { ...note('x'), kind: 'signature' } })).status()).toBe(
		400
	);
	expect(
		(
			await page.request.post(entries, { data: 'no json', headers: { 'content-type': 'application/json' } })
		).status()
	).toBe(400);
});

test('reload, back and another station lose nothing that was typed', async ({ page }) => {
	await openCase(page, 'forgetful bus', '');
	await page.getByLabel('In the customer’s own words').fill('Pedal shivers near standstill');
	await page.reload();
	await expect(page.getByLabel('In the customer’s own words')).toHaveValue('Pedal shivers near standstill');
	await expect(page.getByText('Brought back what you typed before.')).toBeVisible();
	await goTo(page, 'Mend');
	await page.goBack();
	await expect(page.getByLabel('In the customer’s own words')).toHaveValue('Pedal shivers near standstill');
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('“Pedal shivers near standstill”')).toBeVisible();
	await page.reload();
	await expect(page.getByText('“Pedal shivers near standstill”')).toBeVisible();
	await expect(page.getByText('Brought back')).toHaveCount(0);
});

test('a correction needs a reason and leaves the old entry standing struck through', async ({ page }) => {
	await openCase(page, 'second thought', '');
	await page.getByLabel('In the customer’s own words').fill('Rear left');
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	await page.locator('#complaint').getByRole('button', { name: 'Correct' }).click();
	await page.getByLabel('In the customer’s own words').fill('Rear right');
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('Say why: the old entry stays')).toBeVisible();
	await page.getByLabel('Why is it corrected?').fill('misheard');
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).click();
	await expect(page.getByText('“Rear right”')).toBeVisible();
	const thread = page.getByRole('complementary', { name: 'Thread' });
	await expect(thread).toContainText('corrected: misheard');
	await expect(thread.getByRole('listitem').filter({ hasText: 'Rear left' })).toHaveCSS(
		'text-decoration-line',
		'line-through'
	);
});
