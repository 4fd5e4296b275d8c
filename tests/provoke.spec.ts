import { benchFault } from '../src/lib/bench/faults/benchFault';
import { accessible, clearAll, cycleKeyNow, driveNow, expect, goTo, openCase, put, scan, test } from './bay';

const AT = 'rear-left';

test('stored and not failing now: it is made to come, mended, and the very same is done again before it is proven', async ({
	page,
	bay,
	as
}) => {
	const stand = await bay(benchFault('lead-chafed', AT, 0.8, 0.4));
	const { host, link, panel } = stand;
	for (let drive = 0; drive < 4; drive++) driveNow(stand);
	cycleKeyNow(stand);
	await openCase(page, 'comes and goes', link, panel);
	await scan(page);
	await page.getByRole('link', { name: 'It comes and goes' }).first().click();
	await expect(page.getByRole('heading', { name: 'It comes and goes: make it come' })).toBeVisible();
	await expect(page.getByText(/stored and does not fail now/)).toBeVisible();
	// Whatever order reasoning gives them, every way is there with what it takes.
	const ways = page.getByRole('region', { name: /What makes it come/ });
	await expect(ways.getByText(/Move the lead, clip by clip/)).toBeVisible();
	await expect(ways.getByText(/Spray water/)).toBeVisible();
	await expect(ways.getByText(/Warm sensor and plug/)).toBeVisible();
	await accessible(page);

	host.act({ do: 'spin', position: AT, kmh: 12 });
	await page.getByRole('button', { name: 'Start watching' }).click();
	await expect(page.getByText(/Put a hand on one place/)).toBeVisible();
	await page.getByRole('button', { name: /^module plug/ }).click();
	await expect(page.getByRole('button', { name: /^module plug .*[3-9] s/ })).toBeVisible();
	// Loaded anew, and on a second tablet, it counts as it did.
	const second = await as('marit');
	await second.goto(page.url());
	await page.reload();
	for (const tab of [page, second])
		await expect(tab.getByRole('button', { name: /^module plug .*([3-9]|\d\d) s/ })).toBeVisible();
	// What was begun here is taken for nothing else: not for a drive, not for a substitution.
	const here = second.url();
	await second.goto(here.replace(/measure.*/, 'prove/drive'));
	await expect(second.getByText('The recording still runs')).toHaveCount(0);
	await second.goto(here.replace('provoke', 'substitute'));
	await expect(second.getByRole('button', { name: 'Count from now' })).toHaveCount(0);
	await second.goto(here);
	await page.getByRole('button', { name: /^lead/ }).click();
	const shake = setInterval(() => host.vehicle.wiggle(AT, ['harness']), 1000);
	await expect(page.getByRole('button', { name: /^lead .*\d×/ })).toBeVisible();
	clearInterval(shake);
	await page.getByRole('button', { name: 'Stop and keep x' }).click();
	await expect(page.getByRole('heading', { name: 'Found: it lets go with the lead moved' })).toBeVisible();
	await expect(page.getByRole('row', { name: /The module plug moved.*nothing in/ })).toBeVisible();
	await page.getByRole('link', { name: 'What to mend' }).click();
	await expect(page.getByRole('button', { name: /^Rear left, lead: proven bad/ })).toBeVisible();

	host.act({ do: 'spin', position: AT, kmh: 0 });
	host.vehicle.mend(AT, 'renew-lead');
	await put(page, 'repair', {
		title: 'Lead renewed',
		position: AT,
		parts: [],
		temporary: false,
		note: '',
		does: { kind: 'renew-lead', place: AT }
	});
	// The module has seen the fault and gives no value until it is cleared.
	await scan(page);
	// The other wheels stood while this one turned: what their module made of that is ours.
	await expect(page.getByText('Made by us').first()).toBeVisible();
	await clearAll(page);
	await page.goto(page.url().replace(/prove$/, `measure/provoke?at=${AT}`));
	await expect(page.getByRole('heading', { name: /^The same again: the lead moved, \d+ s$/ })).toBeVisible();
	host.act({ do: 'spin', position: AT, kmh: 12 });
	await page.getByRole('button', { name: 'Start watching' }).click();
	await page.getByRole('button', { name: /^lead .*to go/ }).click();
	const again = setInterval(() => host.vehicle.wiggle(AT, ['harness']), 1000);
	await expect(page.getByRole('button', { name: /^lead .*to go/ })).toHaveCount(0, { timeout: 90_000 });
	clearInterval(again);
	await page.getByRole('button', { name: 'Stop and keep x' }).click();
	await expect(page.getByRole('heading', { name: /^Done again as before, and nothing/ })).toBeVisible();
	await goTo(page, 'Prove');
	await page
		.getByText(/of \d+ shown: every reason/)
		.first()
		.click();
	await expect(page.getByText(/s of the same since, and nothing/).first()).toBeVisible();
});
