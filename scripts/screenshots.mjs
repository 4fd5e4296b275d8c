// npm run screenshots: remakes docs/screenshots from a fresh demo shop.
import { chromium } from '@playwright/test';
import { mkdirSync, rmSync } from 'node:fs';
import { buildWhenStale } from './build.mjs';
import { startShop } from './shop.mjs';

const DATA = 'data/screenshots';
const PORT = Number(process.env.PORT ?? 4690);
const OUT = 'docs/screenshots';
const PASSWORD = 'ebb-and-flow';

/** @type {{ name: string, vehicle?: string, at: string, theme?: 'bay', size?: { width: number, height: number } }[]} */
const PICTURES = [
	{ name: 'floor', at: '/' },
	{ name: 'listen', vehicle: 'electric shuttle', at: 'listen' },
	{ name: 'read', vehicle: 'school minibus', at: 'read' },
	{ name: 'mend', vehicle: 'volunteer ambulance', at: 'mend' },
	{ name: 'prove', vehicle: 'island vet', at: 'prove' },
	{ name: 'came-back-bay', vehicle: 'volunteer ambulance', at: 'prove', theme: 'bay' },
	{ name: 'hand-over', vehicle: 'ferry crew bus', at: 'hand-over' },
	{ name: 'prove-tablet', vehicle: 'island vet', at: 'prove', size: { width: 820, height: 1180 } }
];

buildWhenStale();
rmSync(DATA, { recursive: true, force: true });
mkdirSync(OUT, { recursive: true });
const shop = await startShop({ data: DATA, port: PORT, firstPort: PORT + 20, logLevel: 'error' });
const browser = await chromium.launch({
	executablePath: process.env.JALDI_CHROMIUM ?? '/usr/bin/chromium',
	args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run']
});
try {
	const context = await browser.newContext({ baseURL: shop.origin });
	const page = await context.newPage();
	await page.goto('/sign-in');
	await page.locator('html[data-ready]').waitFor({ state: 'attached' });
	await page.getByLabel('User name').fill('marit');
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	await page.waitForURL('/');
	for (const { name, vehicle, at, theme = 'day', size = { width: 1280, height: 800 } } of PICTURES) {
		await page.setViewportSize(size);
		await context.addCookies([{ name: 'jaldi-theme', value: theme, url: shop.origin }]);
		let address = at;
		if (vehicle) {
			await page.goto('/');
			const row = page.getByRole('row').filter({ hasText: vehicle });
			address = `${await row.getByRole('link').getAttribute('href')}/${at}`;
		}
		await page.goto(address);
		await page.locator('html[data-ready]').waitFor({ state: 'attached' });
		await page.evaluate(() => document.fonts.ready);
		await page.screenshot({ path: `${OUT}/${name}.png` });
		console.log(`${OUT}/${name}.png`);
	}
} finally {
	await browser.close();
	shop.stop();
}
