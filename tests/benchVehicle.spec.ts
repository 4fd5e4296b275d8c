import { benchFault } from '../src/lib/bench/faults/benchFault';
import { expect, goTo, openCase, test } from './bay';

test('three faults and a silent module: the scan finds all four, and hands on the vehicle mend one', async ({
	page,
	bay
}) => {
	const { host, link, panel } = await bay(
		benchFault('lead-open', 'rear-left'),
		benchFault('steering-angle-not-learned', 'steering-angle'),
		benchFault('module-internal', 'park-brake'),
		benchFault('module-silent', 'yaw')
	);
	await openCase(page, 'four troubles', link, panel);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(
		page.getByText('All 9 modules asked; saved to the case. Silent: Yaw and lateral sensor.')
	).toBeVisible();
	await expect(page.getByRole('region', { name: 'Brake control' })).toContainText('C0045-13');
	await expect(page.getByRole('region', { name: 'Brake control' })).toContainText('U0123-87');
	await expect(page.getByRole('region', { name: 'Steering angle' })).toContainText('C0051-54');
	await expect(page.getByRole('region', { name: 'Parking brake' })).toContainText('P0607-04');
	// What hears the silent one says so by itself.
	await expect(page.getByRole('region', { name: 'Gateway' })).toContainText('U0123-87');
	await expect(page.getByText('Yaw and lateral sensor is silent, the others answer')).toBeVisible();

	await page.getByRole('button', { name: 'Simulator' }).click();
	const standIn = page.getByRole('region', { name: 'Simulator' });
	await expect(standIn).toContainText('stability');
	await standIn.getByLabel('Place').selectOption('yaw');
	await standIn.getByLabel('Repair', { exact: true }).selectOption('renew-module');
	await standIn.getByRole('button', { name: 'Do the repair' }).click();
	await expect(standIn.getByText('Repair done at the yaw.')).toBeVisible();
	await page.getByRole('button', { name: 'Simulator' }).click();

	// It boots, and looks at what it has been taught.
	const knows = () => host.vehicle.module('yaw')?.monitors.some((monitor) => monitor.failing);
	await expect.poll(knows).toBe(true);
	await page.getByRole('button', { name: /Scan/ }).click();
	await expect(page.getByText('All 9 modules asked; saved to the case.', { exact: true })).toBeVisible();
	// The new part answers, and knows nothing of this vehicle yet.
	await expect(page.getByRole('region', { name: 'Yaw and lateral sensor' })).toContainText('C0196-54');
	await expect(page.getByRole('region', { name: 'Yaw and lateral sensor' })).toContainText('C0186-54');
});

test('a trailer is a vehicle too: its axles, its own gateway, its one lamp', async ({ page, trailer }) => {
	const { link, panel } = await trailer(benchFault('lead-open', 'axle2-right'));
	await openCase(page, 'livestock trailer', link, panel, 'hexley-drover');
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(page.getByText('All 2 modules asked; saved to the case.')).toBeVisible();
	await expect(page.getByRole('region', { name: 'Trailer brake control' })).toContainText('C1C14-13');
	await goTo(page, 'Listen');
	await expect(page.getByLabel('Size axle 2 right')).toBeVisible();
});
