import { ESLint } from 'eslint';
import { describe, expect, it } from 'vitest';

/** The folder arrow of the architecture, tried on code that breaks it. */
const lint = async (filePath: string, code: string) => {
	const [result] = await new ESLint().lintText(code, { filePath });
	return result?.messages.map((message) => message.ruleId) ?? [];
};

describe('the folder arrow', () => {
	it('keeps the core from knowing the server, the clock and Node', async () => {
		const rules = await lint(
			'src/lib/core/result.ts',
			"import '../server/services';\nimport 'node:fs';\nexport const now = Date.now();\n"
		);
		expect(rules).toEqual(
			expect.arrayContaining(['boundaries/dependencies', 'no-restricted-imports', 'no-restricted-globals'])
		);
	}, 60_000);

	it('keeps the app from reaching into the bench vehicle, which is a vehicle and answers over a line', async () => {
		expect(await lint('src/lib/server/services.ts', "import '../bench/vehicle';\n")).toContain(
			'boundaries/dependencies'
		);
		expect(await lint('src/lib/ui/keys.ts', "import '../server/stores';\n")).toContain(
			'boundaries/dependencies'
		);
	}, 60_000);

	it('lets the pages use everything below them but the bench', async () => {
		const file = 'src/routes/+layout.server.ts';
		expect(await lint(file, "import '../lib/server/stores';\nimport '../lib/core/result';\n")).toEqual([]);
		expect(await lint(file, "import '../lib/bench/vehicle';\n")).toContain('boundaries/dependencies');
	}, 60_000);
});
