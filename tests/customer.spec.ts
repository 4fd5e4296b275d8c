import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import sharp from 'sharp';
import { expect, put, test } from './bay';

const OWNER = 'Gullwing Nursery';

test('the office takes a vehicle in, the shop asks what it may cost, and the customer’s yes stands on the paper', async ({
	page,
	as
}, info) => {
	const office = await as('office');
	let href = '';

	await test.step('the office opens a case, and writes down who brings it', async () => {
		await office.goto('/cases/new');
		await office.getByText('Van', { exact: true }).click();
		await office.getByLabel('What is it, in words?').fill('nursery flatbed');
		await office.getByLabel('Plate').fill('TPI 140');
		await office.getByLabel('Promised for').fill('when it is done');
		await office.getByRole('button', { name: 'Open the case' }).click();
		await expect(office).toHaveURL(/\/listen$/);
		href = new URL(office.url()).pathname.replace(/\/listen$/, '');

		const customer = office.getByRole('region', { name: 'Customer' });
		await customer.getByLabel('Who brings it?').fill(OWNER);
		await expect(customer.getByText('Nobody of that kind yet.')).toBeVisible();
		await customer.getByRole('button', { name: 'New customer' }).click();
		await expect(customer.getByLabel('Name')).toHaveValue(OWNER);
		await customer.getByLabel('Telephone').fill('call the gate');
		await customer.getByRole('button', { name: 'Save' }).click();
		await expect(customer.getByRole('alert')).toContainText('Digits, spaces and + alone');
		await customer.getByLabel('Telephone').fill('01632 560 188');
		await customer.getByRole('button', { name: 'Save' }).click();
		await expect(customer.getByRole('link', { name: OWNER })).toBeVisible();
		// The thread names nobody.
		const thread = office.getByRole('complementary', { name: 'Thread' });
		await expect(thread).toContainText('Brought in by a customer of the shop');
		await expect(thread).not.toContainText(OWNER);
	});

	await test.step('it writes what the customer says, and no evidence', async () => {
		await office.getByLabel('In the customer’s own words').fill('The lamp came on by the greenhouse');
		await office.getByRole('region', { name: 'Complaint' }).getByRole('button', { name: 'Save' }).click();
		await expect(office.getByText('“The lamp came on by the greenhouse”')).toBeVisible();
		await office.goto(`${href}/mend`);
		await expect(office.getByRole('button', { name: 'Save' })).toHaveCount(0);
		const wrote = await office.request.post(`${href}/work`, { data: { kind: 'scan' } });
		expect(wrote.status()).toBe(403);
		expect(await wrote.text()).toContain('The office takes vehicles in');
	});

	await test.step('a technician says what it is to cost', async () => {
		await page.goto(`${href}/mend/estimate`);
		await expect(page.getByRole('heading', { name: 'Nobody has said yet what it costs' })).toBeVisible();
		await page.getByRole('button', { name: 'Work', exact: true }).click();
		await page.getByLabel('What line 1 is for').fill('Sensor renewed, rear left');
		await expect(page.getByText('Line 1: minutes, as a number.')).toBeVisible();
		await page.getByLabel('Minutes of line 1').fill('35');
		await page.getByRole('button', { name: 'Part or material' }).click();
		await page.getByLabel('What line 2 is for').fill('Wheel speed sensor');
		await page.getByLabel('Price without tax of line 2').fill('64,9o');
		await expect(page.getByText('Line 2: an amount with up to 2 digits behind the point.')).toBeVisible();
		await page.getByLabel('Price without tax of line 2').fill('64,90');
		// 35/60 × 84.00 = 49.00; (49.00 + 64.90) × 1.21 = 137.82
		await expect(page.getByText('€137.82')).toBeVisible();
		await page.reload();
		await expect(page.getByLabel('What line 2 is for')).toHaveValue('Wheel speed sensor');
		await page.getByRole('button', { name: 'Put it on the case' }).click();
		await expect(page.getByRole('heading', { name: '€137.82: ask the customer' })).toBeVisible();
		await page.goto(`${href}/mend`);
		await expect(page.getByText('The customer has not said yet whether it may cost €137.82.')).toBeVisible();
	});

	await test.step('the office finds whom to call, and writes down the answer', async () => {
		await office.goto('/?show=call');
		await office.getByRole('row').filter({ hasText: 'nursery flatbed' }).getByRole('link').first().click();
		await expect(office).toHaveURL(new RegExp(href));
		await office.goto(`${href}/mend/estimate`);
		await expect(office.getByRole('link', { name: '01632 560 188' })).toHaveAttribute(
			'href',
			'tel:01632 560 188'
		);
		await office.getByText('Yes, up to …').click();
		await office.getByLabel('Up to, with tax').fill('100');
		await office.getByLabel('Who said it').fill('the owner');
		await office.getByRole('button', { name: 'Write it down' }).click();
		await expect(office.getByRole('heading', { name: 'More than was agreed: ask again' })).toBeVisible();
		await expect(office.getByText('€137.82 is asked, €100.00 was agreed to.')).toBeVisible();
		await office.getByRole('button', { name: 'They said something else' }).click();
		await office.getByText('Yes, to €137.82').click();
		await office.getByLabel('Who said it').fill('the owner');
		await office.getByLabel('In their words').fill('Go on, it is needed on Friday');
		await office.getByRole('button', { name: 'Write it down' }).click();
		await expect(office.getByRole('heading', { name: 'Agreed: up to €137.82' })).toBeVisible();
		await office.goto('/?show=call');
		await expect(office.getByRole('row').filter({ hasText: 'nursery flatbed' })).toHaveCount(0);
	});

	await test.step('the lead puts the shop’s address and mark on papers; the customer’s has all of it', async () => {
		const lead = await as('marit');
		await lead.goto('/papers');
		await lead.getByLabel('An hour of work, without tax').fill('a lot');
		await lead.getByRole('button', { name: 'Save', exact: true }).click();
		await expect(lead.getByRole('alert')).toContainText('An amount in EUR');
		await lead.getByLabel('An hour of work, without tax').fill('84.00');
		await lead.getByLabel('Where it is and how it is reached').fill('4 Slipway, Tern Point');
		await lead.getByLabel('At the foot of every paper').fill('Open from seven, but for spring tides');
		await lead.getByRole('button', { name: 'Save', exact: true }).click();
		await expect(lead.getByRole('status')).toContainText('Saved');
		const mark = await sharp({ create: { width: 600, height: 200, channels: 3, background: '#205040' } })
			.png()
			.toBuffer();
		await lead
			.getByLabel('A picture: PNG, JPEG or WebP')
			.setInputFiles({ name: 'mark.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
		await lead.getByRole('button', { name: 'Take it' }).click();
		await expect(lead.getByRole('alert')).toContainText('This is no photo that can be read');
		await lead
			.getByLabel('A picture: PNG, JPEG or WebP')
			.setInputFiles({ name: 'mark.png', mimeType: 'image/png', buffer: mark });
		await lead.getByRole('button', { name: 'Take it' }).click();
		await expect(lead.getByRole('img', { name: 'The shop’s mark' })).toBeVisible();

		const file = info.outputPath('customer.pdf');
		writeFileSync(file, await (await lead.request.get(`${href}/report.pdf?for=customer`)).body());
		const text = execFileSync('pdftotext', ['-layout', file, '-']).toString();
		for (const words of [
			'4 Slipway, Tern Point',
			'Open from seven',
			`For ${OWNER}`,
			'Sensor renewed, rear left (35 min)',
			'€49.00',
			'€137.82',
			'The owner, by phone: yes, to all of it.'
		])
			expect(text).toContain(words);
		expect(execFileSync('pdfimages', ['-list', file]).toString()).toMatch(/480\s+160/);
		await lead.getByLabel('Where it is and how it is reached').fill('');
		await lead.getByLabel('At the foot of every paper').fill('');
		await lead.getByRole('button', { name: 'Save', exact: true }).click();
		await expect(lead.getByRole('status')).toContainText('Saved');
		await lead.getByRole('button', { name: 'Papers without a mark' }).click();
		await expect(lead.getByRole('img', { name: 'The shop’s mark' })).toHaveCount(0);
	});
});

test('a customer is found, changed with what it was, and taken out on demand; a vehicle is renamed', async ({
	page,
	as
}) => {
	const lead = await as('marit');
	const name = 'Cliff Path Pottery';
	await page.goto('/customers');
	await page.getByLabel('Name', { exact: true }).fill(name);
	await page.getByLabel('E-mail', { exact: true }).fill('kiln@pottery.example');
	await page.getByRole('button', { name: 'Write them down' }).click();
	await expect(page.getByRole('heading', { name })).toBeVisible();
	const href = new URL(page.url()).pathname;

	await test.step('found from anywhere, with a slip', async () => {
		await page.keyboard.press('/');
		await page.keyboard.type('potetry');
		await expect(page.getByRole('option').filter({ hasText: name })).toBeVisible();
		await page.keyboard.press('Escape');
	});

	await test.step('a reload in the middle keeps what is typed, and with this customer alone', async () => {
		await page.getByLabel('Address').fill('Cliff path 1');
		await page.reload();
		await expect(page.getByLabel('Address')).toHaveValue('Cliff path 1');
		// From one to another without a load of the page: each has its own.
		await page.keyboard.press('/');
		await page.keyboard.type('saltmarsh');
		await page.getByRole('option').filter({ hasText: 'Saltmarsh Dairy' }).click();
		await expect(page.getByRole('heading', { name: 'Saltmarsh Dairy' })).toBeVisible();
		await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Saltmarsh Dairy');
		await expect(page.getByLabel('Address')).toHaveValue('');
		await page.goBack();
		await expect(page.getByLabel('Name', { exact: true })).toHaveValue(name);
		await expect(page.getByLabel('Address')).toHaveValue('Cliff path 1');
		await page.getByLabel('Address').fill('');
	});

	await test.step('two people change it: nobody’s words are lost unseen', async () => {
		await lead.goto(href);
		await page.getByLabel('Telephone').fill('01632 560 201');
		await page.getByRole('button', { name: 'Save' }).click();
		await expect(page.getByRole('status')).toContainText('Saved.');
		await lead.getByLabel('Address').fill('Cliff path 2');
		await lead.getByRole('button', { name: 'Save' }).click();
		await expect(lead.getByText('Somebody else has changed this customer meanwhile')).toBeVisible();
		await expect(lead.getByLabel('Address')).toHaveValue('Cliff path 2');
		await page.reload();
		await page.getByText('Changed once').click();
		await expect(page.getByText('Telephone: nothing → 01632 560 201')).toBeVisible();
	});

	await test.step('a lead takes them out', async () => {
		await expect(page.getByRole('button', { name: 'Take this customer out' })).toHaveCount(0);
		await lead.reload();
		await lead.getByRole('button', { name: 'Take this customer out' }).click();
		await lead.getByRole('button', { name: 'Take them out' }).click();
		await expect(lead).toHaveURL(/\/customers$/);
		await page.goto(href);
		await expect(page.getByText('There is no such customer')).toBeVisible();
	});

	await test.step('a vehicle that was here before is found, and who brought it is offered again', async () => {
		await page.goto('/cases/new');
		await page.getByLabel('Was it here before?').fill('no such thing');
		await expect(page.getByText('No vehicle of that kind was here.')).toBeVisible();
		await page.getByLabel('Was it here before?').fill('tpi31');
		await page.getByRole('button', { name: /It is this one: .*dairy/ }).click();
		await expect(page.getByText('Velmora Skiff, dairy, refrigerated')).toBeVisible();
		await page.getByRole('button', { name: 'Open the case' }).click();
		await expect(page).toHaveURL(/\/listen$/);
		const customer = page.getByRole('region', { name: 'Customer' });
		await customer.getByRole('button', { name: 'The same as the last time: Saltmarsh Dairy' }).click();
		await expect(customer.getByRole('link', { name: 'Saltmarsh Dairy' })).toBeVisible();
		// How far it went since is drawn once there is something to draw.
		await put(page, 'vehicle-checked', {
			vin: '1'.repeat(17),
			checkDigitFits: true,
			odometerKm: 250_000
		});
		await page.goto('/vehicles/dairy');
		await expect(page.getByRole('img', { name: /^Odometer: .*, 250,000 km on / })).toBeVisible();
		await expect(page.locator('.apexcharts-series-markers')).not.toHaveCount(0);
	});

	await test.step('a vehicle gets another plate, and is found by both', async () => {
		await page.goto('/vehicles/pilot');
		await page.getByLabel('Plate').fill('TPI 333');
		await page.getByRole('button', { name: 'Save' }).click();
		await expect(page.getByText('Changed once')).toBeVisible();
		for (const plate of ['TPI 333', 'tpi 3'])
			await expect
				.poll(async () => (await page.request.get(`/decoder?${new URLSearchParams({ q: plate })}`)).text())
				.toContain('harbour pilot');
		await page.getByLabel('Plate').fill('TPI 3');
		await page.getByRole('button', { name: 'Save' }).click();
		await expect(page.getByText('Changed 2 times')).toBeVisible();
	});
});
