import { AnyOrder } from '../demo/anyOrder.fixture';
import { reasonModel } from '../library/reason/model';
import { reasonAbout } from '../src/lib/case/reason/reasoning';
import { randomFrom } from '../src/lib/core/live/drives.fixture';
import { outcomeIndex } from '../src/lib/core/path/model';
import { decide } from '../src/lib/core/path/nextTest';
import { policyAt, PROVE_FIRST } from '../src/lib/core/path/policy';
import { smallModel } from '../src/lib/core/path/smallModels.fixture';
import { best } from './best';

const HYPOTHESES = 400;
const TESTS = 90;
/** Cases that are worked on in any order, and how far. */
const CASES = [21, 22, 23, 24, 25, 26];
const STEPS = 20;

type Row = (name: string, ours: string, reference: string, ratio: string) => void;

/** A decision over 400 hypotheses and 90 tests, against one plain pass over the same chances. */
function benchDecision(row: Row): void {
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
		`reason: next of ${TESTS} tests, ${HYPOTHESES} hypotheses`,
		`${decided.toFixed(1)} ms`,
		`${passed.toFixed(2)} ms one pass`,
		`${(decided / passed).toFixed(0)} ×`
	);
	if (kept < 0) console.log(kept);
}

/** First look at a thread after each of its entries, against one plain pass over what was seen and what may be wrong. */
function benchThread(row: Row): void {
	const looks: number[] = [];
	let plainMs = 0;
	for (const seed of CASES) {
		const person = new AnyOrder(seed);
		const model = reasonModel(person.type);
		for (let i = 0; i < STEPS && !person.view.signature; i++) {
			person.step();
			const { entries, book, codes, numberingOpen } = person.view;
			const began = performance.now();
			const { observations } = reasonAbout(entries, model, {
				book,
				codes,
				numberingOpen,
				policy: policyAt(0.8)
			});
			looks.push(performance.now() - began);
			plainMs += best(() => {
				const logs = new Float64Array(model.rows.length);
				for (const { sign, outcome } of observations) {
					const table = model.sign(sign);
					if (!table) continue;
					const [at, width] = [outcomeIndex(table, outcome), table.outcomes.length];
					for (let r = 0; r < logs.length; r++)
						logs[r] = (logs[r] ?? 0) + Math.log(table.chance[r * width + at] ?? 1);
				}
				return logs;
			});
		}
	}
	// The first of each vehicle also works out what its faults show: that is done once for all its cases.
	const sorted = looks.sort((a, b) => a - b);
	const half = sorted[sorted.length >> 1] ?? NaN;
	const plain = plainMs / looks.length;
	row(
		'reason: first look at a changed thread, half of them',
		`${half.toFixed(0)} ms`,
		`${plain.toFixed(2)} ms one pass`,
		`${(half / plain).toFixed(0)} ×`
	);
	const most = sorted[Math.floor(0.95 * sorted.length)] ?? NaN;
	row(
		'reason: the same, nineteen in twenty',
		`${most.toFixed(0)} ms`,
		`${plain.toFixed(2)} ms one pass`,
		`${(most / plain).toFixed(0)} ×`
	);
}

export function benchReason(row: Row): void {
	benchDecision(row);
	benchThread(row);
}
