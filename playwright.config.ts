import { defineConfig, devices } from '@playwright/test';
import { CHROMIUM, CHROMIUM_FLAGS, ORIGIN } from './tests/where';

export default defineConfig({
	testDir: 'tests',
	globalSetup: './tests/startShop.ts',
	// Whole jobs on a slow machine; each wait within them has its own, shorter one.
	timeout: 300_000,
	// Machines differ, and browsers and vehicles share two cores here: what comes is seen at once, however long it may take.
	expect: { timeout: 45_000 },
	fullyParallel: true,
	workers: 2,
	forbidOnly: Boolean(process.env.CI),
	retries: 0,
	reporter: process.env.JALDI_TEST_REPORT
		? [['list'], ['json', { outputFile: process.env.JALDI_TEST_REPORT }]]
		: [['list']],
	use: {
		...devices['Desktop Chrome'],
		baseURL: ORIGIN,
		viewport: { width: 1280, height: 800 },
		// Only the test of the page that a tablet keeps lets it be kept.
		serviceWorkers: 'block',
		launchOptions: {
			executablePath: CHROMIUM,
			args: CHROMIUM_FLAGS
		}
	},
	projects: [
		{ name: 'sign-in', testMatch: 'signIn.setup.ts' },
		// The longest one, on a shop of its own: it begins first so that the others run beside it.
		{ name: 'kill', dependencies: ['sign-in'], testMatch: 'kill.long.ts' },
		{ name: 'pages', dependencies: ['sign-in'], testMatch: '*.spec.ts' },
		// Uses up the sign-in attempts of this address, so it comes when nobody else has to sign in.
		{ name: 'last', dependencies: ['pages'], testMatch: 'rateLimit.last.ts' }
	]
});
