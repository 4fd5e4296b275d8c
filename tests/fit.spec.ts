import sharp from 'sharp';
import { benchFault } from '../src/lib/bench/faults/benchFault';
import { accessible, expect, goTo, openCase, test } from './bay';

test('a sensor is fitted by its sheet: cautions first, torque in either unit, and a wrong one stands on the case', async ({
	page,
	bay
}) => {
	const { link } = await bay();
	await openCase(page, 'new sensor', link);
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/mend/fit?sheet=sensor&place=rear-left`);
	await expect(page.getByText('The steps open once all 4 are read.')).toBeVisible();
	await expect(page.getByRole('heading', { name: /steps are left/ })).toHaveCount(0);
	for (const box of await page
		.getByRole('region', { name: /^First: read/ })
		.getByRole('checkbox')
		.all())
		await box.check();
	await expect(page.getByRole('heading', { name: '6 steps are left' })).toBeVisible();
	await accessible(page);

	await page.getByLabel('Number on the part').fill('BM-7301');
	const box = page.getByLabel('Add photos');
	await box.setInputFiles({ name: 'no-photo.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('') });
	await expect(page.getByRole('alert')).toContainText('This is no photo that can be read');
	const photo = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#785' } })
		.jpeg()
		.toBuffer();
	await box.setInputFiles({ name: 'part.jpg', mimeType: 'image/jpeg', buffer: photo });
	await expect(page.getByAltText('of the part, to be kept with the sheet')).toBeVisible();
	await page.getByRole('radiogroup', { name: 'Right for this vehicle' }).getByText('yes').click();
	for (const words of [/Bore and face/, /goes home by finger/, /Steering turned/])
		await page.getByLabel(words).check();
	for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'One more clip' }).click();
	await expect(page.getByText('5 of 5')).toBeVisible();
	const bolt = page.getByLabel('Sensor bolt', { exact: true });
	await bolt.fill('25');
	// The library's value is an example: nothing is held against it.
	await expect(page.getByText('Held against nothing')).toBeVisible();
	await expect(page.getByRole('alert')).toHaveCount(0);
	await page.getByLabel('Sensor bolt: the maker’s value').fill('8');
	await page.getByLabel('Sensor bolt: where that stands').fill('maker’s data, section 4');
	await expect(page.getByRole('alert')).toContainText('not what was asked');

	await test.step('a reload keeps what was ticked; in pound-feet it is the same bolt', async () => {
		await page.reload();
		await expect(page.getByLabel('Number on the part')).toHaveValue('BM-7301');
		await expect(page.getByText('5 of 5')).toBeVisible();
		await expect(page.getByAltText('of the part, to be kept with the sheet')).toBeVisible();
		await page.getByRole('radiogroup', { name: 'Torque in' }).getByText('lb·ft').click();
		await page.getByLabel('Sensor bolt: the maker’s value').fill('5.9');
		await bolt.fill('5.9');
		await expect(page.getByRole('alert')).toHaveCount(0);
		await bolt.fill('25');
	});

	await test.step('what is left out needs a reason, and the wrong torque keeps the case open', async () => {
		const plug = page.getByRole('listitem').filter({ hasText: 'Plug locked' });
		await plug.getByRole('button', { name: 'leave it out' }).click();
		await expect(page.getByRole('heading', { name: 'One step is left' })).toBeVisible();
		await plug.getByLabel('Why it is left out').fill('plug is moulded on');
		await expect(page.getByRole('heading', { name: 'Every step is done' })).toBeVisible();
		await page.getByLabel('Grade of the part').selectOption('branded');
		await page.getByRole('button', { name: 'Put repair and sheet on the thread' }).click();
		// One act: the sheet is the repair, with its part.
		await expect(page.getByRole('complementary', { name: 'Thread' })).toContainText('Renew the sensor');
		await expect(page.getByRole('region', { name: 'Fitted' })).toContainText(
			'Sensor bolt: 33.9 N·m is not right'
		);
		await expect(page.getByText('The steps open once all 4 are read.')).toBeVisible();
		await goTo(page, 'Mend');
		await expect(page.getByText('sensor BM-7301, branded')).toBeVisible();
	});
});

test('work on the stand-in vehicle is as good as its sheet: a bearing the wrong way round stays so', async ({
	page,
	bay
}) => {
	const { host, link, panel } = await bay(benchFault('ring-tooth-missing', 'rear-left'));
	await openCase(page, 'new hub', link, panel);
	await page.goto(`${page.url().replace(/\/listen.*/, '')}/mend/fit?sheet=hub&place=rear-left`);
	for (const box of await page
		.getByRole('region', { name: /^First: read/ })
		.getByRole('checkbox')
		.all())
		await box.check();
	await page.getByLabel('And on the simulator').selectOption('renew-hub');
	await page.getByRole('button', { name: 'Put it on the thread as it stands' }).click();
	await expect(page.getByText('Done on the simulator, as the sheet says.')).toBeVisible();
	await expect(page.getByRole('region', { name: 'Fitted' })).toContainText(
		'Magnetic side of the bearing towards the sensor: not done'
	);
	expect(host.vehicle.faults.map(({ id, at }) => `${id}@${at}`)).toContain('encoder-reversed@rear-left');

	// By hand at the vehicle, done as it should be.
	await page.getByRole('button', { name: /Simulator/ }).click();
	const hands = page.getByRole('region', { name: 'Simulator' });
	await hands.getByLabel('Place', { exact: true }).selectOption('rear-left');
	await hands.getByLabel('Repair').selectOption('renew-hub');
	await hands.getByRole('button', { name: 'Do the repair' }).click();
	await expect(hands.getByText('Repair done at the rear left.')).toBeVisible();
	expect(host.vehicle.faults).toEqual([]);
});
