import js from '@eslint/js';
import boundaries from 'eslint-plugin-boundaries';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/**
 * The folder arrow: each layer may import from itself and from the layers named here, and from nothing else.
 * The computation in `core` knows nobody; pages sit on top.
 */
const ARROW = {
	library: ['core'],
	core: [],
	case: ['core', 'library'],
	bench: ['core', 'library'],
	// What is said to a vehicle, with or without a server.
	link: ['core', 'library', 'case'],
	// Looking after a shop's database, with or without a server on it.
	care: ['core', 'case', 'objects', 'migrations'],
	// Large pieces and whole files in a store elsewhere.
	objects: ['core'],
	server: ['core', 'library', 'case', 'link', 'care', 'objects', 'migrations'],
	workers: ['core', 'library', 'case'],
	// What goes on in a browser while the server is out of reach.
	away: ['core', 'library', 'case'],
	ui: ['core', 'library', 'case', 'away'],
	routes: ['core', 'library', 'case', 'link', 'server', 'workers', 'away', 'ui'],
	// Trials run whole diagnoses on the stand-ins.
	cli: ['core', 'library', 'case', 'link', 'bench', 'care', 'objects'],
	demo: ['core', 'library', 'case', 'link', 'server', 'bench'],
	tests: ['core', 'library', 'case', 'link', 'care', 'server', 'bench', 'demo']
};

const CORE_BANS = [
	{ name: 'Date', message: 'The core takes time as an argument.' },
	{ name: 'performance', message: 'The core takes time as an argument.' },
	{ name: 'process', message: 'The core runs anywhere: no Node.' },
	{ name: 'Buffer', message: 'The core runs anywhere: use Uint8Array.' },
	{ name: 'window', message: 'The core runs anywhere: no DOM.' },
	{ name: 'document', message: 'The core runs anywhere: no DOM.' },
	{ name: 'fetch', message: 'The core does no input or output.' }
];

export default ts.config(
	{
		ignores: [
			'node_modules/',
			'.svelte-kit/',
			'build/',
			'data/',
			'test-results/',
			'src/lib/server/migrations/'
		]
	},
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'no-undef': 'off',
			'no-warning-comments': ['error', { terms: ['todo', 'fixme'] }],
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'svelte/no-navigation-without-resolve': 'off'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } }
	},
	{
		files: ['{src,library,demo,cli,tests}/**/*.{ts,svelte}'],
		plugins: { boundaries },
		settings: {
			'import/resolver': { typescript: { project: './tsconfig.json' } },
			'boundaries/elements': [
				{ type: 'core', pattern: 'src/lib/core' },
				{ type: 'case', pattern: 'src/lib/case' },
				{ type: 'bench', pattern: 'src/lib/bench' },
				{ type: 'link', pattern: 'src/lib/link' },
				{ type: 'migrations', pattern: 'src/lib/server/migrations' },
				{ type: 'care', pattern: 'src/lib/care' },
				{ type: 'objects', pattern: 'src/lib/objects' },
				{ type: 'server', pattern: 'src/lib/server' },
				{ type: 'away', pattern: 'src/lib/away' },
				{ type: 'ui', pattern: 'src/lib/ui' },
				{ type: 'workers', pattern: 'src/workers' },
				{ type: 'routes', pattern: 'src/routes' },
				// The whole path: a page may be called library too.
				{ type: 'library', pattern: 'library/**/*', partialMatch: false },
				{ type: 'demo', pattern: 'demo' },
				{ type: 'cli', pattern: 'cli' },
				{ type: 'tests', pattern: 'tests' }
			]
		},
		rules: {
			'boundaries/dependencies': [
				'error',
				{
					default: 'disallow',
					policies: [
						{
							from: { file: { path: 'src/*.ts' } },
							allow: { to: { element: { types: { anyOf: ['server', 'workers', 'away', 'case', 'core'] } } } }
						},
						{ allow: { to: { module: { origin: ['external', 'core'] } } } },
						...Object.entries(ARROW).map(([type, allowed]) => ({
							from: { element: { type } },
							allow: { to: { element: { types: { anyOf: [type, ...allowed] } } } }
						}))
					]
				}
			]
		}
	},
	{
		files: ['src/lib/core/**/*.ts'],
		ignores: ['**/*.test.ts'],
		rules: {
			'no-restricted-globals': ['error', ...CORE_BANS],
			'no-restricted-imports': ['error', { patterns: ['node:*'] }]
		}
	}
);
