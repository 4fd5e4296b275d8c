import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path/posix';
import ts from 'typescript';

/** Where the code of this project is. */
const ROOTS = ['src', 'library', 'cli', 'demo', 'scripts', 'tests'];
const IS_CODE = /\.(ts|svelte|mjs)$/;
const ALIASES: Record<string, string> = { $lib: 'src/lib', $library: 'library' };
/** What a path without an ending may stand for. */
const ENDINGS = ['', '.ts', '.svelte.ts', '/index.ts', '.svelte', '.mjs'];

const codeOf = (file: string): string => {
	const text = readFileSync(file, 'utf8');
	if (!file.endsWith('.svelte')) return text;
	return [...text.matchAll(/<script[^>]*>([^]*?)<\/script>/g)].map(([, script]) => script).join('\n');
};

function fileOf(from: string, wanted: string): string | null {
	const [first = ''] = wanted.split('/');
	const path = wanted.startsWith('.')
		? join(dirname(from), wanted)
		: ALIASES[first] && join(ALIASES[first], wanted.slice(first.length + 1));
	if (!path) return null;
	const found = ENDINGS.map((ending) => path + ending).find(
		(one) => existsSync(one) && statSync(one).isFile() && IS_CODE.test(one)
	);
	return found ?? null;
}

/** The files of this project → the files of it that each imports, for what it does or for types alone. */
export function readImports(): Map<string, string[]> {
	const files = ROOTS.flatMap((root) =>
		readdirSync(root, { recursive: true, encoding: 'utf8' }).map((path) =>
			join(root, path.replaceAll('\\', '/'))
		)
	).filter((path) => IS_CODE.test(path) && !path.endsWith('.d.ts'));
	return new Map(
		files.map((file) => {
			const { importedFiles } = ts.preProcessFile(codeOf(file), true, true);
			const found = importedFiles.flatMap(({ fileName }) => fileOf(file, fileName) ?? []);
			return [file, [...new Set(found)]];
		})
	);
}
