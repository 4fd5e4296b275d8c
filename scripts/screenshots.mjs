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
async function bringSaloon(page) {
	await page.getByText('Car', { exact: true }).first().click();
	await page.getByRole('textbox', { name: 'What is it, in words?' }).fill('White saloon, 2011');
	await page.getByRole('textbox', { name: 'Plate' }).fill('ZX 12 ABC');
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
async function toComplaint(page) {
	await page.locator('#complaint-answers').evaluate((answers) => answers.scrollIntoView({ block: 'center' }));
}
/** A hand on the module's plug, then on the lead, while a helper turns the wheel. @param {Page} page */
async function provoke(page) {
	await byHand(page, { do: 'key', to: 'on' });
	await byHand(page, { do: 'spin', position: 'front-left', kmh: 12 });
	await page.getByRole('button', { name: 'Start watching' }).click();
	await page.getByRole('button', { name: /^module plug/ }).click();
	await page.getByRole('button', { name: /^module plug .*8 s/ }).waitFor();
	await page.getByRole('button', { name: /^lead/ }).click();
	await page.getByRole('button', { name: /^lead .*3 s/ }).waitFor();
	await page.screenshot({ path: `${OUT}/provoke.png` });
	await page.getByRole('button', { name: 'Stop and keep x' }).click();
	await page.getByRole('heading', { name: 'What was done so far' }).waitFor();
	await byHand(page, { do: 'spin', position: 'front-left', kmh: 0 });
}
/** @type {(page: Page) => Promise<void>} */
async function twoAtOnce(page) {
	await byHand(page, { do: 'connector', name: 'X20', closed: false });
	await byHand(page, { do: 'key', to: 'on' });
	await page.getByRole('button', { name: 'Scan again' }).click();
	await page.getByText(/modules asked; saved on the thread/).waitFor();
	await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: 'Reason' }).click();
	await page.getByRole('table', { name: /Proof grid/ }).waitFor();
}
/** Cautions read, the first steps ticked, and a nut drawn too little. @param {Page} page */
async function fitHub(page) {
	for (const box of await page
		.getByRole('region', { name: /^First: read/ })
		.getByRole('checkbox')
		.all())
		await box.check();
	await page.getByLabel('Number on the part').fill('NH-2044');
	await page.getByLabel(/Magnetic side of/).check();
	await page.getByLabel(/Face of the knuckle/).check();
	// A torque that the maker asks for, drawn too little.
	await page.getByLabel('Hub bolts, crosswise: the maker’s value').fill('110');
	await page.getByLabel('Hub bolts, crosswise: where that stands').fill('maker’s sheet 40-12');
	await page.getByLabel('Hub bolts, crosswise', { exact: true }).fill('90');
	await page.getByLabel('Axle nut, on the ground', { exact: true }).fill('150');
	await page
		.getByRole('heading', { name: /before it goes on/ })
		.evaluate((heading) => heading.scrollIntoView());
}

/** The new module is coded; the first sensor is next. @param {Page} page */
async function codeModule(page) {
	await page.getByLabel('A charger holds the battery').check();
	await page.getByRole('button', { name: 'Write it into the module' }).click();
	await page.getByRole('button', { name: 'Write it into the module now' }).click();
	await page.getByText(/Coding, .*: done; saved on the thread/).waitFor();
	await page.getByRole('navigation', { name: 'Mending' }).evaluate((nav) => nav.scrollIntoView());
}

/** A lamp tapped along through two showings. @param {Page} page */
async function tapLamp(page) {
	await page.evaluate(() => {
		for (const seconds of [0, 0.6, 1.2, 2.9, 3.5, 7.2, 7.8, 8.4, 10.1, 10.7]) {
			for (const type of ['keydown', 'keyup']) {
				const event = new KeyboardEvent(type, { code: 'Space', bubbles: true, cancelable: true });
				Object.defineProperty(event, 'timeStamp', { value: 100_000 + seconds * 1000 });
				document.body.dispatchEvent(event);
			}
		}
	});
	await page.getByText(/Seen the same more than once/).waitFor();
}

/** @type {{ name: string, vehicle?: string, at: string, theme?: 'bay', size?: { width: number, height: number }, act?: (page: Page) => Promise<void>, taken?: boolean }[]} */
const PICTURES = [
	{ name: 'floor', at: '/' },
	{ name: 'new-case', at: '/cases/new', act: bringSaloon },
	{ name: 'listen', vehicle: 'electric shuttle', at: 'listen' },
	{ name: 'read', vehicle: 'school minibus', at: 'read' },
	{ name: 'decoder', vehicle: 'school minibus', at: 'read', act: typeIntoDecoder },
	{ name: 'lamp', vehicle: 'livestock trailer', at: 'read/lamp', act: tapLamp },
	{ name: 'recording', vehicle: 'island vet', at: 'watch', act: openRecording },
	{ name: 'measure', vehicle: 'school minibus', at: 'measure', act: readMeter },
	{
		name: 'ring-map',
		vehicle: 'electric shuttle',
		at: 'measure/scope?at=rear-left',
		size: { width: 820, height: 1180 },
		act: takeCapture
	},
	{ name: 'mend', vehicle: 'island vet', at: 'mend/plan?does=refit-ring&place=front-right' },
	{ name: 'fit', vehicle: 'volunteer ambulance', at: 'mend/fit?sheet=hub&place=front-left', act: fitHub },
	{ name: 'calibrate', vehicle: 'post van', at: 'mend/calibrate', act: codeModule },
	{ name: 'prove', vehicle: 'island vet', at: 'prove' },
	{ name: 'complaint', vehicle: 'ferry crew bus', at: 'prove', act: toComplaint },
	{ name: 'hand-over', vehicle: 'ferry crew bus', at: 'hand-over' },
	{ name: 'swap', vehicle: 'school minibus', at: 'measure/swap?at=rear-left' },
	{
		name: 'provoke',
		vehicle: 'school minibus',
		at: 'measure/provoke?at=front-left',
		theme: 'bay',
		act: provoke,
		taken: true
	},
	// Two wheels at once: its middle plug is open from here on.
	{ name: 'reason', vehicle: 'school minibus', at: 'read', act: twoAtOnce },
	// Last: its recording goes on.
	{ name: 'across-the-bay', vehicle: 'ferry crew bus', at: 'watch/bay?round=hand', act: spinTwo }
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
	for (const {
		name,
		vehicle,
		at,
		theme = 'day',
		size = { width: 1280, height: 800 },
		act,
		taken = false
	} of PICTURES) {
		await page.setViewportSize(size);
		await context.addCookies([{ name: 'jaldi-theme', value: theme, url: shop.origin }]);
		let address = at;
		if (vehicle) {
			await page.goto('/');
			const row = page.locator('tr, li').filter({ hasText: vehicle, visible: true });
			address = `${await row.getByRole('link').getAttribute('href')}/${at}`;
		}
		await page.goto(address);
		await page.locator('html[data-ready]').waitFor({ state: 'attached' });
		if (act) await act(page);
		await page.evaluate(() => document.fonts.ready);
		// What does not stand still is taken while it runs.
		if (!taken) await page.screenshot({ path: `${OUT}/${name}.png` });
		console.log(`${OUT}/${name}.png`);
	}
} finally {
	await browser.close();
	shop.stop();
}
