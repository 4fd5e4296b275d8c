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
				// What is drawn is placed by style attributes, for browsers that cannot tell them apart by all styles; none stands in a page.
				'style-src': ['self', 'unsafe-inline'],
				'style-src-elem': ['self'],
				'style-src-attr': ['unsafe-inline'],
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
