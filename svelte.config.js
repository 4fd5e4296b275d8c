import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	compilerOptions: { runes: ({ filename }) => (filename.includes('node_modules') ? undefined : true) },
	kit: {
		adapter: adapter(),
		// A part that fails while the server draws a page is left out like one that fails in a browser.
		experimental: { handleRenderingErrors: true },
		alias: { $library: 'library' },
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'script-src': ['self'],
				// Svelte sets style attributes for transitions and drawn marks; scripts stay strict.
				'style-src': ['self', 'unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'font-src': ['self'],
				'connect-src': ['self'],
				'worker-src': ['self', 'blob:'],
				'object-src': ['none'],
				'base-uri': ['self'],
				'form-action': ['self'],
				'frame-ancestors': ['none']
			}
		},
		typescript: {
			config: (config) => {
				config.include.push(
					'../library/**/*.ts',
					'../demo/**/*.ts',
					'../cli/**/*.ts',
					'../scripts/**/*.ts',
					'../*.config.ts'
				);
			}
		}
	}
};
