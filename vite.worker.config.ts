import { defineConfig } from 'vite';

/** The worker threads of the server, as one file beside it: what `build` makes second. */
export default defineConfig({
	resolve: { alias: { $library: '/library', $lib: '/src/lib' } },
	build: {
		ssr: 'src/lib/server/heavy/worker.ts',
		outDir: 'build/heavy',
		emptyOutDir: true,
		rolldownOptions: { output: { entryFileNames: 'worker.js' } }
	},
	ssr: { noExternal: true, external: ['@libsql/client', 'pdfmake', 'pino', 'sharp'] }
});
