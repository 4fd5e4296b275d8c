import { readFileSync, rmSync } from 'node:fs';
import { startServer } from '../scripts/shop.mjs';
import { accessible, expect, test } from './bay';
import { PORT } from './where';

const DATA = 'data/test-first';
const FIRST_PORT = PORT + 90;

test.use({ baseURL: `http://127.0.0.1:${FIRST_PORT}`, storageState: { cookies: [], origins: [] } });

test('a shop that has nobody makes its first lead on a page, with the code that stands at the server', async ({
	page
}) => {
	rmSync(DATA, { recursive: true, force: true });
	const { server } = await startServer({ data: DATA, port: FIRST_PORT, logLevel: 'silent' });
	try {
		await expect(startServer({ data: DATA, port: FIRST_PORT + 1, logLevel: 'silent' })).rejects.toThrow(
			'The server stopped while starting'
		);
		const code = readFileSync(`${DATA}/jaldi.db.first-lead`, 'utf8').trim();
		await page.goto('/cases/new');
		await expect(page.getByRole('heading', { name: 'This shop has nobody yet' })).toBeVisible();
		await accessible(page);
		await page.getByLabel('Code').fill('AAAA-BBBB-CCCC');
		await page.getByLabel('Your name').fill('Rona Amsel');
		await page.getByLabel('User name').fill('Rona');
		await page.getByLabel('Password').fill('short');
		await page.getByRole('button', { name: 'Make the first lead' }).click();
		await expect(page.getByText('A user name is 2 to 30 small letters')).toBeVisible();
		await expect(page.getByText('A password has 8 signs or more.')).toBeVisible();
		await page.getByLabel('User name').fill('rona');
		await page.getByLabel('Password').fill('tide-tables');
		await page.getByRole('button', { name: 'Make the first lead' }).click();
		await expect(page.getByText('That is not the code that stands at the server.')).toBeVisible();
		await page.getByLabel('Code').fill(code.toLowerCase());
		await page.getByLabel('Password').fill('tide-tables');
		await page.getByRole('button', { name: 'Make the first lead' }).click();
		await expect(page.getByRole('link', { name: 'Rona Amsel' })).toBeVisible();
		await expect(page.getByRole('heading', { level: 1 })).toContainText('open');
		// What a lead may do is there, and the page that made one leads nowhere any more.
		await page.goto('/library/learned');
		await expect(page.getByRole('heading', { level: 1 })).toContainText('Nothing is learned');
		await page.context().clearCookies();
		await page.goto('/first-lead');
		await expect(page).toHaveURL(/\/sign-in$/);
	} finally {
		server.kill('SIGTERM');
	}
});
