import { benchFault } from '../src/lib/bench/faults/benchFault';
import { accessible, expect, goTo, openCase, put, scan, test, VIN } from './bay';

test('before it begins: what is missing is said, another way takes a reason, and the choice is on the thread', async ({
	page,
	bay,
	as
}) => {
	const { link, panel } = await bay(benchFault('ring-moved', 'rear-left', 0.8));
	await openCase(page, 'crept ring', link, panel);
	await put(page, 'vehicle-checked', { vin: VIN, checkDigitFits: true, odometerKm: 180_000 });
	await scan(page);
	const mend = page.url().replace(/\/read.*/, '/mend');
	await page.goto(`${mend}?does=renew-module&place=brake`);
	await page.getByRole('link', { name: /Can this shop finish it/ }).click();
	await expect(page.getByText('Yes: this shop can finish it.')).toBeVisible();
	await expect(page.getByRole('region', { name: 'What it calls for afterwards' })).toContainText(
		'Learning drive'
	);
	await accessible(page);

	await test.step('a lead takes the closed area away: then it can only partly be finished here', async () => {
		const lead = await as('marit');
		await lead.goto(`${new URL(page.url()).origin}/library/equipment`);
		await lead.getByLabel(/closed area/).uncheck();
		await lead.getByRole('button', { name: 'Save the list' }).click();
		await expect(lead.getByRole('status')).toHaveText('Saved; it holds from now on.');
		await page.reload();
		await expect(page.getByText(/^Partly: it can be mended here/)).toBeVisible();
		await expect(page.getByRole('region', { name: 'What is missing' })).toContainText(
			'A closed area for a learning drive, for learning drive: afterwards, elsewhere'
		);
		await lead.getByLabel(/closed area/).check();
		await lead.getByRole('button', { name: 'Save the list' }).click();
		await expect(lead.getByRole('heading', { name: /can do 7 of 8/ })).toBeVisible();
	});

	await test.step('the dearer way is chosen with a reason', async () => {
		await page.goto(`${mend}/plan?does=refit-ring&place=rear-left`);
		const ways = page.getByRole('region', { name: /ways? to mend/ });
		await expect(ways.getByRole('row', { name: /Refit the ring, rear left, temporary/ })).toBeVisible();
		const all = await ways.getByRole('radio').all();
		await all.at(-1)?.check();
		const choose = page.getByRole('button', { name: 'Choose it' });
		await expect(choose).toBeDisabled();
		await page
			.getByLabel(/Why this one, and not/)
			.fill('It goes to the mainland every day, and must not come back');
		await choose.click();
		await expect(page.getByRole('textbox', { name: 'Done', exact: true })).not.toHaveValue('');
		await expect(page.getByRole('button', { name: /^Chosen: .* It goes to the mainland/ })).toBeVisible();
		await goTo(page, 'Mend');
	});
});
