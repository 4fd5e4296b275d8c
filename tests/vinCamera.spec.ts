import bwip from 'bwip-js/node';
import sharp from 'sharp';
import { expect, test } from './bay';

const NUMBER = '1M8GDM9AXKP042788';

/** A code as it is printed on a plate, photographed: not quite straight, not quite sharp. */
async function photoOf(bcid: string, text: string, turnDeg = 0): Promise<Buffer> {
	const code = await bwip.toBuffer({ bcid, text, scale: 4, padding: 12, backgroundcolor: 'FFFFFF' });
	const turned = await sharp(code)
		.rotate(turnDeg, { background: '#ffffff' })
		.resize({ width: 1_500, height: 1_000, fit: 'inside', withoutEnlargement: true })
		.png()
		.toBuffer();
	return sharp({ create: { width: 1_900, height: 1_300, channels: 3, background: '#8c8f88' } })
		.composite([{ input: turned, gravity: 'centre' }])
		.blur(0.8)
		.jpeg({ quality: 80 })
		.toBuffer();
}

test('a vehicle’s number is read by the camera from the code beside it, however it is printed', async ({
	page
}) => {
	await page.goto('/cases/new');
	const camera = page.getByLabel('Read it with the camera');
	const number = page.getByLabel('Number of the vehicle (VIN)');
	for (const [bcid, text, turnDeg] of [
		['code39', `I${NUMBER}`, 0],
		['code39', NUMBER, 90],
		['datamatrix', NUMBER, 0],
		['qrcode', `VIN:${NUMBER};KM:84210`, 0],
		['code128', NUMBER, 2]
	] as const)
		await test.step(`${bcid}, turned by ${turnDeg}°`, async () => {
			await number.fill('');
			await camera.setInputFiles({
				name: 'plate.jpg',
				mimeType: 'image/jpeg',
				buffer: await photoOf(bcid, text, turnDeg)
			});
			await expect(number).toHaveValue(NUMBER);
			await expect(page.getByText(`Read: ${NUMBER}. Hold it against the plate.`)).toBeVisible();
		});

	await test.step('what is none says so, and leaves what was typed', async () => {
		await number.fill('BRM16');
		const wall = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#77808c' } })
			.jpeg()
			.toBuffer();
		await camera.setInputFiles({ name: 'wall.jpg', mimeType: 'image/jpeg', buffer: wall });
		await expect(page.getByText('No code is seen in it')).toBeVisible();
		await camera.setInputFiles({
			name: 'other.jpg',
			mimeType: 'image/jpeg',
			buffer: await photoOf('code128', 'LOT 4711')
		});
		await expect(page.getByText('There is a code, and no vehicle’s number in it.')).toBeVisible();
		await camera.setInputFiles({
			name: 'notes.txt',
			mimeType: 'image/png',
			buffer: Buffer.from('no picture')
		});
		await expect(page.getByText('This is no picture that can be read.')).toBeVisible();
		await expect(number).toHaveValue('BRM16');
	});
});
