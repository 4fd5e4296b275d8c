import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	test: {
		include: ['{src,library,demo,cli,scripts}/**/*.test.ts'],
		environment: 'node',
		testTimeout: 60_000,
		// Loading it all anew for each file took longer than most files. That no test leans on what another left behind is
		// tried at every run: files and tests come in another order each time, and the seed is printed.
		isolate: false,
		sequence: { shuffle: { files: true, tests: true } },
		// Both cores: nothing else runs beside the unit tests.
		maxWorkers: 2
	}
});
