// npm run screenshots: remakes docs/screenshots from a fresh demo shop.
import { chromium } from '@playwright/test';
import { mkdirSync, rmSync } from 'node:fs';
import { buildWhenStale } from './build.mjs';
import { startShop } from './shop.mjs';

const DATA = 'data/screenshots';
const PORT = Number(process.env.PORT ?? 4690);
const OUT = 'docs/screenshots';
const PASSWORD = 'ebb-and-flow';

/** @typedef {import('@playwright/test').Page} Page */
/** @type {(page: Page) => Promise<void>} */
async function typeIntoDecoder(page) {
	await page.keyboard.press('/');
	await page.keyboard.type('59 02 FF 40 45 13 2F C1 21 87 AF');
	await page.getByRole('option').nth(1).waitFor();
}
/** @type {(page: Page) => Promise<void>} */
async function openExchanges(page) {
	await page.getByRole('link', { name: 'Every exchange, byte by byte' }).click();
	await page.locator('summary').filter({ hasText: '11 bytes' }).click();
}

/** @type {(page: Page) => Promise<void>} */
async function openRecording(page) {
	await page.getByRole('link', { name: /along the causeway/ }).click();
	await page.locator('.apexcharts-series path').first().waitFor();
	await page.locator('#graph').evaluate((graph) => graph.scrollIntoView({ block: 'end' }));
}
/** @type {(page: Page) => Promise<void>} */
async function spinTwo(page) {
	await page.getByRole('button', { name: 'Start' }).click();
	const caseId = new URL(page.url()).pathname.split('/')[2];
	const spin = (/** @type {string} */ position, /** @type {number} */ kmh) =>
		page.request.post(`/cases/${caseId}/stand-in`, {
			data: { do: 'spin', position, kmh },
			headers: { origin: new URL(page.url()).origin }
		});
	await page.getByText(/Spin the front left/).waitFor();
	await spin('front-left', 9);
	await page.getByText('Front left is turning').waitFor();
	await page.waitForFunction(() => document.querySelector('[data-held]') !== null);
	await spin('front-left', 0);
	await page.getByText(/Front left answers/).waitFor();
	await spin('front-right', 9);
	await page.getByText('Front right is turning').waitFor();
	await page.waitForFunction(() => document.querySelector('[data-held]') !== null);
}
/** @type {(page: Page, action: object) => Promise<void>} */
async function byHand(page, action) {
	const caseId = new URL(page.url()).pathname.split('/')[2];
	await page.request.post(`/cases/${caseId}/stand-in`, {
		data: action,
		headers: { origin: new URL(page.url()).origin }
	});
}
/** @type {(page: Page) => Promise<void>} */
async function readMeter(page) {
	await page.getByRole('button', { name: /Read the meter/ }).click();
	await page.getByText('Out of its window').waitFor();
	await page.locator('#now').evaluate((heading) => heading.scrollIntoView({ block: 'center' }));
}
/** @type {(page: Page) => Promise<void>} */
async function takeCapture(page) {
	await byHand(page, { do: 'in-gear', kmh: 12 });
	await page.getByLabel('What for, in a word').fill('rear axle in gear');
	await page.getByRole('button', { name: /Take a capture/ }).click();
	await page.getByRole('img', { name: /look at/ }).waitFor();
	await page.getByRole('button', { name: 'Show it' }).click();
	await byHand(page, { do: 'in-gear', kmh: 0 });
	await page.locator('#picture').evaluate((picture) => picture.scrollIntoView());
}
/** @type {(page: Page) => Promise<void>} */
async function halveTwice(page) {
	await page.getByRole('button', { name: 'Set it up (stand-in)' }).click();
	await page.getByRole('button', { name: 'Put everything back (stand-in)' }).waitFor();
	for (const next of ['wheel side', 'at the sensor']) {
		await page.getByRole('button', { name: /Read the meter/ }).click();
		await page.getByText(/V: voltage as/).waitFor();
		await page.getByRole('button', { name: 'voltage as at the fed end' }).click();
		await page.getByRole('heading', { name: new RegExp(`^Measure at .*${next}`) }).waitFor();
	}
	await page.getByRole('button', { name: 'Put everything back (stand-in)' }).click();
	await page.locator('#here').evaluate((heading) => heading.scrollIntoView());
}
/** @type {(page: Page) => Promise<void>} */
async function openCell(page) {
	await page.getByRole('button', { name: /^Rear left, lead: suspect/ }).click();
	await page.getByText(/What moved/).waitFor();
	await page.getByRole('table', { name: /Proof grid/ }).evaluate((table) => table.scrollIntoView());
}
/** @type {(page: Page) => Promise<void>} */
async function writeSizes(page) {
	for (const wheel of ['front left', 'front right', 'rear left'])
		await page.getByLabel(`Size ${wheel}`).fill('205/75R16C');
	await page.getByLabel('Size rear right').fill('T125/70D16');
	await page.getByLabel('driven').selectOption('rear axle');
	await page.getByLabel('a code allows, km/h').fill('6');
}

/** @type {{ name: string, vehicle?: string, at: string, theme?: 'bay', size?: { width: number, height: number }, act?: (page: Page) => Promise<void> }[]} */
const PICTURES = [
	{ name: 'floor', at: '/' },
	{ name: 'listen', vehicle: 'electric shuttle', at: 'listen' },
	{ name: 'read', vehicle: 'school minibus', at: 'read' },
	{ name: 'decoder', vehicle: 'school minibus', at: 'read', act: typeIntoDecoder },
	{ name: 'code', at: '/codes/C0045-13?status=2F&maker=Brindle' },
	{ name: 'frame-log', vehicle: 'island vet', at: 'read', act: openExchanges },
	{ name: 'library', at: '/library' },
	{ name: 'watch', vehicle: 'island vet', at: 'watch' },
	{ name: 'recording', vehicle: 'island vet', at: 'watch', act: openRecording },
	{ name: 'across-the-bay', vehicle: 'ferry crew bus', at: 'watch/bay?round=hand', act: spinTwo },
	{ name: 'tyres', at: '/tyres', act: writeSizes },
	{ name: 'measure', vehicle: 'school minibus', at: 'measure', act: readMeter },
	{
		name: 'ring-map',
		vehicle: 'electric shuttle',
		at: 'measure/scope?at=rear-left',
		size: { width: 820, height: 1180 },
		act: takeCapture
	},
	{ name: 'halve', vehicle: 'school minibus', at: 'measure/halve?at=rear-left', act: halveTwice },
	{ name: 'reason', vehicle: 'dairy', at: 'reason' },
	{ name: 'reason-why', vehicle: 'school minibus', at: 'reason', theme: 'bay', act: openCell },
	{ name: 'mend', vehicle: 'volunteer ambulance', at: 'mend' },
	{ name: 'prove', vehicle: 'island vet', at: 'prove' },
	{ name: 'hand-over', vehicle: 'ferry crew bus', at: 'hand-over' }
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
	for (const { name, vehicle, at, theme = 'day', size = { width: 1280, height: 800 }, act } of PICTURES) {
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
		if (act) await act(page);
		await page.evaluate(() => document.fonts.ready);
		await page.screenshot({ path: `${OUT}/${name}.png` });
		console.log(`${OUT}/${name}.png`);
	}
} finally {
	await browser.close();
	shop.stop();
}
