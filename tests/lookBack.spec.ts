import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { expect, test } from './bay';

test('cases like this one, with what mended them; a label for its key', async ({ page }, info) => {
	await page.goto('/?words=bakery');
	await page.getByRole('row').filter({ hasText: 'bakery van' }).getByRole('link').first().click();
	await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Reason' }).click();
	await page.getByRole('link', { name: 'Cases like this one' }).click();
	await expect(page.getByRole('heading', { level: 1 })).toContainText('like this one');
	// What this vehicle was here for before is the closest: the same code, and what was done came back.
	const first = page.getByRole('main').getByRole('listitem').first();
	await expect(first).toContainText('this very vehicle');
	await expect(first).toContainText('C0035');
	await expect(first).toContainText('came back as TP-0411');
	await expect(first).toContainText('Not counted in the reasoning');

	const href = new URL(page.url()).pathname.replace(/\/reason.*/, '');
	const tag = await page.request.get(`${href}/report.pdf?for=tag`);
	const file = info.outputPath('tag.pdf');
	writeFileSync(file, await tag.body());
	expect(execFileSync('pdftotext', [file, '-']).toString()).toMatch(/TP-0411[^]*TPI 40[^]*bakery van/);
	expect(execFileSync('pdfinfo', [file]).toString()).toMatch(/Pages:\s+1\b[^]*176 x 113/);
});

test('figures of a time and of a person, and as a table', async ({ page, as }) => {
	const lead = await as('marit');
	await lead.goto('/figures');
	await expect(lead.getByRole('heading', { name: 'What came back, and what mended it then' })).toBeVisible();
	await lead.getByLabel('From').fill('2020-01-01');
	await lead.getByLabel('Until').fill('2020-01-31');
	await lead.getByRole('button', { name: 'Show those' }).click();
	await expect(lead.getByRole('heading', { level: 1 })).toHaveText(
		'No case is signed from 1 January 2020 until 31 January 2020'
	);
	await lead.getByRole('link', { name: 'Ever', exact: true }).click();
	await lead.getByLabel('Whose work').selectOption('Ana');
	await lead.getByRole('button', { name: 'Show those' }).click();
	await expect(lead.getByText('of what Ana did')).toBeVisible();

	// Their own is theirs to see, somebody else’s is not.
	await page.goto('/figures');
	await expect(page.getByLabel('Whose work').getByRole('option')).toHaveText(['everybody’s', 'Ana']);
	const others = new URL(lead.url()).searchParams.get('by') ?? '';
	expect((await page.request.get(`/figures/file?by=${others}`)).status()).toBe(200);
	expect((await page.request.get('/figures/file?by=somebody')).status()).toBe(403);
	const table = await (await lead.request.get('/figures/file')).text();
	expect(table.split('\n')[0]).toBe(
		'number,vehicle,type,signed at,outcome,came back,codes,repair,repaired by,minutes by the timer,minutes estimated'
	);
	expect(table).toMatch(/TP-0401,bakery van,Velmora Skiff,[^,]+,released,yes,/);
});
