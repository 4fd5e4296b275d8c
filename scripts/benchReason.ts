import { randomFrom } from '../src/lib/core/live/drives.fixture';
import { decide } from '../src/lib/core/path/nextTest';
import { PROVE_FIRST } from '../src/lib/core/path/policy';
import { smallModel } from '../src/lib/core/path/smallModels.fixture';
import { best } from './best';

const HYPOTHESES = 300;
const TESTS = 80;

/** A decision over 300 hypotheses and 80 tests, against one plain pass over the same chances. */
export function benchReason(
	row: (name: string, ours: string, reference: string, ratio: string) => void
): void {
	const { model, situation, candidates } = smallModel(randomFrom(1), HYPOTHESES, TESTS);
	const tables = candidates.map(({ signs }) => model.sign(signs[0] ?? ''));
	let kept = 0;
	const passed = best(() => {
		for (const table of tables)
			for (let o = 0; o < (table?.outcomes.length ?? 0); o++)
				for (let h = 0; h < HYPOTHESES; h++)
					kept += (situation.weight[h] ?? 0) * (table?.chance[h * table.outcomes.length + o] ?? 0);
	});
	const decided = best(() => decide(model, situation, candidates, PROVE_FIRST, new Set()));
	row(
		'reason: next of 80 tests, 300 hypotheses',
		`${decided.toFixed(1)} ms`,
		`${passed.toFixed(2)} ms one pass`,
		`${(decided / passed).toFixed(0)} ×`
	);
	if (kept < 0) console.log(kept);
}
