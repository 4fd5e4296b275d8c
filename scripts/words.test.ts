import { readFileSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { readImports } from './imports';

/** Names of what people read. Whatever is decided is decided by facts: a sentence may be said otherwise tomorrow. */
const READ = new Set([
	'words',
	'says',
	'title',
	'detail',
	'why',
	'because',
	'todo',
	'headline',
	'verdict',
	'message',
	'outcomeWords',
	'lacks',
	'note',
	'description',
	'name'
]);
const ASKS = new Set(['includes', 'startsWith', 'endsWith', 'match', 'indexOf', 'search']);
/** Ids and closed codes are in small letters with hyphens; whatever has a space or begins with a capital is said to people. */
const isSentence = (text: string): boolean => /[A-Za-z]{2}.* .*[A-Za-z]|^\/?\^?[A-Z][a-z]/.test(text);

/** Where words have to be read all the same, each with why. */
const ALLOWED: Record<string, string> = {
	'src/lib/server/db/threads.ts': 'a trigger of the database can only say a sentence; they are our own'
};

const nameOf = (node: ts.Expression): string | null => {
	if (ts.isIdentifier(node)) return node.text;
	if (ts.isPropertyAccessExpression(node)) return node.name.text;
	if (ts.isNonNullExpression(node)) return nameOf(node.expression);
	return ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression)
		? nameOf(node.expression.expression)
		: null;
};
const literalOf = (node: ts.Expression): string | null =>
	ts.isStringLiteralLike(node) ? node.text : ts.isRegularExpressionLiteral(node) ? node.text : null;

/** Places where code asks what a sentence says: `line: what it asks`. */
export function asksWords(code: string): string[] {
	const file = ts.createSourceFile('asked.ts', code, ts.ScriptTarget.Latest, true);
	const found: string[] = [];
	const isAsked = (words: ts.Expression, by: ts.Expression): boolean => {
		const named = nameOf(words);
		const literal = literalOf(by);
		return named !== null && READ.has(named) && literal !== null && isSentence(literal);
	};
	const visit = (node: ts.Node): void => {
		const note = () =>
			found.push(
				`${file.getLineAndCharacterOfPosition(node.getStart()).line + 1}: ${node.getText().slice(0, 90)}`
			);
		if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression)) {
			const [argument] = node.arguments;
			const { expression: on, name } = node.expression;
			if (argument && ASKS.has(name.text) && isAsked(on, argument)) note();
			if (argument && name.text === 'test' && isAsked(argument, on)) note();
		}
		if (
			ts.isBinaryExpression(node) &&
			[ts.SyntaxKind.EqualsEqualsEqualsToken, ts.SyntaxKind.ExclamationEqualsEqualsToken].includes(
				node.operatorToken.kind
			) &&
			(isAsked(node.left, node.right) || isAsked(node.right, node.left))
		)
			note();
		ts.forEachChild(node, visit);
	};
	visit(file);
	return found;
}

const codeOf = (path: string): string => {
	const text = readFileSync(path, 'utf8');
	return path.endsWith('.svelte')
		? [...text.matchAll(/<script[^>]*>([^]*?)<\/script>/g)].map(([, script]) => script).join('\n')
		: text;
};

describe('what people read', () => {
	it('decides nothing', () => {
		const asked = [...readImports().keys()]
			.filter((path) => /^(src|library|cli)\//.test(path) && !/\.(test|fixture)\.ts$/.test(path))
			.flatMap((path) => asksWords(codeOf(path)).map((one) => `${path}:${one}`))
			.filter((one) => !Object.keys(ALLOWED).some((path) => one.startsWith(`${path}:`)));
		expect(asked).toEqual([]);
		// It reads every file of the project: beside page tests that takes its time.
	}, 60_000);

	it.each([
		["if (finding.words.includes('on stands')) stop();", 1],
		['const often = /how often/.test(step.title);', 1],
		["if (verdict === 'Proven clear') sign();", 1],
		["if (verdict.kind === 'proven-clear') sign();", 0],
		["const at = text.indexOf('\\n');", 0]
	])('%s is found %i times', (code, times) => expect(asksWords(code)).toHaveLength(times));
});
