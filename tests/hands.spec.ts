import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect, openCase, test } from './bay';
import { benchFault } from '../src/lib/bench/faults/benchFault';

const TABLET = { width: 820, height: 1180 };
const PHONE = { width: 390, height: 844 };

test('the keyboard alone goes from the floor to a saved scan', async ({ page, bay }) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'hands-free', link);
	await page.goto('/?words=hands-free');
	await page.keyboard.press('n');
	await expect(page.getByRole('heading', { name: 'A vehicle comes in' })).toBeVisible();
	await page.goBack();
	const row = page.getByRole('row').filter({ hasText: 'hands-free' });
	await row.getByRole('link').focus();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: 'Write down what the customer says' })).toBeVisible();
	await page.keyboard.press('.');
	await expect(page.getByLabel('In the customer’s own words')).toBeFocused();
	await page.keyboard.type('Lamp 2 is on.');
	await expect(page).toHaveURL(/listen$/);
	await page.locator('#complaint').getByRole('button', { name: 'Save' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.getByText('“Lamp 2 is on.”')).toBeVisible();
	// On in the next part that asks, by itself; out of it, and the keys are keys again.
	await expect(page.locator('#customer').locator('input').first()).toBeFocused();
	await page.keyboard.press('Escape');
	await page.keyboard.press('2');
	await expect(page.getByRole('heading', { name: 'Nothing is read yet' })).toBeVisible();
	await page.getByRole('button', { name: 'Scan every module' }).focus();
	await page.keyboard.press('Enter');
	await expect(page.getByRole('heading', { name: /^8 codes in 8 modules/ })).toBeVisible();
	await page.keyboard.press('Shift+?');
	await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
	await page.keyboard.press('Escape');
	await page.keyboard.press('5');
	await expect(page).toHaveURL(/\/reason$/);
	await expect(
		page.getByRole('heading', { name: /possible causes left of \d+|^Almost certain/ })
	).toBeVisible();
});

/** WCAG 2.2 AA, and one heading that says what a page is. */
const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
const said = (where: string, violations: { id: string; nodes: { html: string }[] }[]): string[] =>
	violations.map(({ id, nodes }) => `${where} ${id}: ${nodes.map(({ html }) => html).join(' | ')}`);

// A page a test, so that the two cores share them and none waits for all the others.
for (const path of [
	'/',
	'/?by=person',
	'/vehicles/bakery',
	'/closed',
	'/decode?q=C0045-13',
	'/codes/C0045-13?status=2F',
	'/library',
	'/library/reasoning',
	'/library/vehicles',
	'/customers',
	'/library/maker-brindle',
	'/cases/new',
	'/figures',
	'/library/equipment',
	'/me',
	'/waiting',
	...['listen', 'read', 'watch', 'measure', 'mend', 'prove', 'prove/drive', 'hand-over'].map(
		(s) => `case/${s}`
	)
]) {
	test(`everybody can read ${path}, by day and in the bay`, async ({ page, context }) => {
		const station = /^case(?<station>\/.*)/.exec(path)?.groups?.station;
		const address = station === undefined ? path : `${await demoCase(page, 'volunteer ambulance')}${station}`;
		for (const theme of ['day', 'bay'] as const) {
			await context.addCookies([
				{ name: 'jaldi-theme', value: theme, url: new URL(test.info().project.use.baseURL ?? '').origin }
			]);
			await page.goto(address);
			await expect(page.getByRole('heading').first()).toBeVisible();
			// Everything by day, also where it is narrow; by night only what the colours can change.
			const axe = () => new AxeBuilder({ page });
			const { violations } =
				theme === 'day'
					? await axe().withTags(RULES).analyze()
					: await axe().withRules(['color-contrast']).analyze();
			expect(said(theme, violations)).toEqual([]);
			if (theme === 'bay') continue;
			await page.setViewportSize(PHONE);
			expect(said('on a phone', (await axe().withTags(RULES).analyze()).violations)).toEqual([]);
			expect(
				await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
			).toBeLessThanOrEqual(0);
		}
	});
}

/** Where a case of the demo is. */
async function demoCase(page: Page, nickname: string): Promise<string> {
	await page.goto(`/?words=${encodeURIComponent(nickname)}`);
	const row = page.locator('tr, li').filter({ hasText: nickname, visible: true });
	return (await row.getByRole('link').getAttribute('href')) ?? '';
}

test('nothing is clipped or pushed off the page on a tablet or a phone', async ({ page }) => {
	await page.setViewportSize(TABLET);
	const href = await demoCase(page, 'island vet');
	const past: string[] = [];
	for (const path of [
		'/',
		'/cases/new',
		'/decode?q=splice',
		'/codes/C0045-13',
		'/library',
		'/library/vehicles',
		'/me',
		...['listen', 'read', 'mend', 'prove', 'hand-over', 'vehicle'].map((s) => `${href}/${s}`)
	]) {
		await page.goto(path);
		await expect(page.getByRole('heading').first()).toBeVisible();
		for (const size of [PHONE, TABLET]) {
			await page.setViewportSize(size);
			const over = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
			if (over > 0) past.push(`${path} at ${size.width}: ${over} px`);
		}
	}
	expect(past).toEqual([]);
	await page.getByRole('button', { name: /^Thread/ }).click();
	await expect(page.getByRole('heading', { name: 'Thread' })).toBeVisible();
});

test('a wrong address of a case says so', async ({ page }) => {
	await page.goto('/cases/nothing/listen');
	await expect(page.getByRole('heading', { name: 'There is no such case.' })).toBeVisible();
});
