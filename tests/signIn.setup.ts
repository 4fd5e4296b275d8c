import { expect, test as setup } from '@playwright/test';
import { PASSWORD } from '../demo/shop';
import { SIGNED_IN } from './where';

for (const [username, file] of Object.entries(SIGNED_IN)) {
	setup(`sign in as ${username}`, async ({ page }) => {
		await page.goto('/');
		await expect(page).toHaveURL(/\/sign-in/);
		await page.getByLabel('User name').fill(username);
		await page.getByLabel('Password').fill(PASSWORD);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await expect(page.getByRole('heading', { level: 1 })).toContainText('open');
		await page.context().storageState({ path: file });
	});
}
