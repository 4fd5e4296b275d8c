import { expect, openCase, scan, test } from './bay';
import { benchFault } from '../src/lib/bench/faults/benchFault';

test('typed words offer what they sound like, and only what is chosen counts', async ({ page, bay }) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'heavy rain', link);
	const complaint = page.locator('#complaint');
	await complaint.getByLabel(/own words/).fill('Lamp in heavy rain, and it makes a noise');
	await expect(complaint.getByText('Sounds like “in rain”')).toBeVisible();
	await expect(complaint.getByText('Sounds like “noise”')).toBeVisible();
	await expect(complaint.locator('p').filter({ hasText: /Sounds like.*steering/ })).toHaveCount(0);
	await complaint.getByRole('button', { name: 'in rain', exact: true }).click();
	await expect(complaint.getByText('Sounds like “in rain”')).toHaveCount(0);
	await complaint.getByRole('button', { name: 'Save' }).click();
	await expect(complaint).toContainText('in rain');
	// Offered and not chosen is not said.
	await expect(complaint.locator('p').filter({ hasText: /· noise|^noise/ })).toHaveCount(0);

	const work = page.locator('#prior-work');
	await work.getByRole('button', { name: 'Add a part' }).click();
	await work.getByLabel('Part 1', { exact: true }).fill('Yaw sensor');
	await work.getByRole('button', { name: /^It is: yaw or acceleration sensor/ }).click();
	await expect(work.getByLabel('What part 1 is')).toHaveValue('yaw-sensor');
	await work.getByRole('button', { name: 'Save' }).click();
	await expect(work).toContainText('Yaw sensor');

	// A repair in words of one's own tells nothing; the library's word for it is offered.
	await scan(page);
	await page.goto(`${page.url().replace(/\/read.*/, '')}/mend`);
	await page.getByRole('textbox', { name: 'Done', exact: true }).fill('New wiring to the wheel');
	await expect(page.getByLabel('In the library’s words')).toHaveValue('');
	await page.locator('p').filter({ hasText: 'Sounds like' }).getByRole('button').first().click();
	await expect(page.getByLabel('In the library’s words')).not.toHaveValue('');
});

test('a lead adds the shop’s own caution once, and it stands at every step that exposes the same', async ({
	page,
	pickUp,
	as
}) => {
	const { link } = await pickUp();
	await openCase(page, 'pedal codes', link, '', 'norvane-wold');
	const lamp = `${page.url().replace(/\/listen.*/, '')}/read/lamp`;
	await page.goto(lamp);
	await expect(page.getByRole('note').filter({ hasText: 'chocked' })).toBeVisible();

	// Whoever is no lead reads them, and changes nothing.
	await page.goto('/library/cautions');
	await expect(page.getByRole('heading', { name: /^When the pedal or the key is worked/ })).toBeVisible();
	await expect(page.getByRole('button', { name: 'Save' })).toHaveCount(0);

	const marit = await as('marit');
	await marit.goto('/library/cautions');
	const own = marit.getByLabel(/^The pedal or the key is worked .*own words/);
	const words = 'Keys of the hoist stay with whoever reads the lamp.';
	await own.fill(words);
	await own.press('Enter');
	await expect(marit.getByText('Saved; it shows from now on.')).toBeVisible();
	await page.goto(lamp);
	await expect(page.getByRole('note').filter({ hasText: words })).toBeVisible();

	await own.fill('');
	await own.press('Enter');
	await expect(marit.getByRole('heading', { name: /none of this shop’s own yet|One caution/ })).toBeVisible();
	await page.reload();
	await expect(page.getByText(words)).toHaveCount(0);
});
