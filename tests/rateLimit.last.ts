import { expect, test } from '@playwright/test';

test('guessing passwords is slowed down after a few tries', async ({ page }) => {
	await page.goto('/sign-in');
	await page.getByLabel('User name').fill('marit');
	for (let i = 0; i < 12; i++) {
		await page.getByLabel('Password').fill(`guess ${i}`);
		const answered = page.waitForResponse((response) => response.request().method() === 'POST');
		await page.getByRole('button', { name: 'Sign in' }).click();
		await answered;
		await expect(page.getByRole('button', { name: 'Sign in' })).toBeEnabled();
		if (await page.getByText('Too many tries from here').isVisible()) break;
		await expect(page.getByText('User name and password do not belong together.')).toBeVisible();
	}
	await expect(page.getByText('Too many tries from here. Wait a minute, then try again.')).toBeVisible();
});
