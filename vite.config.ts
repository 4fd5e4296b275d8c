import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	test: {
		include: ['{src,library,demo,cli,scripts}/**/*.test.ts'],
		environment: 'node',
		testTimeout: 20_000,
		// No test changes what another imports; loading it all anew for each file took longer than most files.
		isolate: false,
		// Both cores: nothing else runs beside the unit tests.
		maxWorkers: 2
	}
});
