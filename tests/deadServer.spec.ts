import { rmSync } from 'node:fs';
import { prepareShop, startServer } from '../scripts/shop.mjs';
import { PASSWORD } from '../demo/shop';
import { expect, goTo, openCase, test } from './bay';
import { reply, stranger } from './stranger';
import { PORT } from './where';

const DATA = 'data/test-dead';
const DEAD_PORT = PORT + 80;
const ORIGIN = `http://127.0.0.1:${DEAD_PORT}`;

test.use({ baseURL: ORIGIN, storageState: { cookies: [], origins: [] } });

test('the server dies during a scan and while a form is being filled: both are there when it is back', async ({
	page
}) => {
	rmSync(DATA, { recursive: true, force: true });
	prepareShop({ data: DATA, firstPort: DEAD_PORT + 1 });
	let { server } = await startServer({ data: DATA, port: DEAD_PORT, logLevel: 'silent' });
	const kill = async () => {
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
	};
	try {
		await page.goto('/sign-in');
		await page.getByLabel('User name').fill('ana');
		await page.getByLabel('Password').fill(PASSWORD);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await expect(page.getByRole('heading', { level: 1 })).toContainText('open');

		// Answers the gateway and then holds its breath.
		const vehicle = await stranger((socket, asked) => {
			if (asked[11] === 0x00) socket.write(reply(asked, (asked[12] ?? 0) + 0x40, asked[13] ?? 0, 0xff));
			else socket.write(reply(asked, 0x7f, asked[12] ?? 0, 0x78));
		});
		await openCase(page, 'unlucky bus', vehicle.link);
		await goTo(page, 'Read');
		await page.getByRole('button', { name: 'Scan every module' }).click();
		await expect(page.getByText('Asking Brake control · 1 of 9')).toBeVisible();
		await kill();
		({ server } = await startServer({ data: DATA, port: DEAD_PORT, logLevel: 'silent' }));
		await expect(page.getByText('The server stopped in the middle.')).toBeVisible();
		await expect(page.getByText('Partial.', { exact: true })).toBeVisible();
		await expect(page.getByText('The server stopped during the scan.').first()).toBeVisible();

		await goTo(page, 'Mend');
		await page.getByLabel('Note for the thread').fill('Feed 11.9 V at the far plug');
		await kill();
		await page.getByRole('button', { name: 'Save the note' }).click();
		await expect(page.getByText('It is kept on this device and goes by itself.')).toBeVisible();
		await expect(page.getByLabel('Note for the thread')).toHaveValue('');
		({ server } = await startServer({ data: DATA, port: DEAD_PORT, logLevel: 'silent' }));
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText(
			'Feed 11.9 V at the far plug'
		);
		vehicle.server.close();
	} finally {
		await kill();
	}
});
