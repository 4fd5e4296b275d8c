import { alg, Graph } from '@dagrejs/graphlib';
import { describe, expect, it } from 'vitest';
import { readImports } from './imports';

const imports = readImports();

/** Files that import each other, by whatever way round; each ring as its files. */
function rings(files: ReadonlyMap<string, readonly string[]>): string[][] {
	const graph = new Graph();
	// A component that draws itself inside itself is one file.
	for (const [file, used] of files) for (const one of used) if (one !== file) graph.setEdge(file, one);
	return alg.findCycles(graph);
}

describe('the imports of this project', () => {
	it('are found in code and pages, by every way to write a path', () => {
		expect(imports.get('src/lib/case/codes/caseCodes.ts')).toEqual(
			expect.arrayContaining(['src/lib/case/thread/thread.ts', 'library/codes.ts'])
		);
		expect(imports.get('src/routes/cases/[id]/reason/+page.svelte')).toEqual(
			expect.arrayContaining(['src/lib/ui/Caution.svelte', 'src/routes/cases/[id]/reason/ProofGrid.svelte'])
		);
		expect(imports.get('src/routes/cases/[id]/reason/+page.server.ts')).toContain(
			'src/lib/server/cases/access.ts'
		);
		expect(imports.size).toBeGreaterThan(900);
	});

	it('lead nowhere round in a ring, not for types either', () => {
		expect(rings(imports)).toEqual([]);
	});

	it('would be found in a ring', () => {
		const two = new Map([
			['a.ts', ['b.ts']],
			['b.ts', ['c.ts']],
			['c.ts', ['b.ts']]
		]);
		expect(rings(two)).toEqual([['c.ts', 'b.ts']]);
	});
});
