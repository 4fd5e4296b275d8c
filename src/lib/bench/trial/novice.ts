import type { PlacedTest } from '../../../../library/reason/tests';
import type { ReasonModel } from '../../../../library/reason/placed';
import type { Seen, SignKey } from '../../../../library/reason/signs';

/** How often a step is another one than the page says, and how often a reading is wrong or never written down. */
const OWN_ORDER = 0.2;
const MISREADS = 0.03;
const FORGETS = 0.03;
/** What a tool reads by itself nobody misreads. */
const READ_BY_TOOL: ReadonlySet<string> = new Set(['scan', 'recheck']);

/** Somebody who knows only what the page shows, and is not always careful: what is done and noted is not what was advised and seen. */
export class Novice {
	/** @param random from 0 up to 1 */
	constructor(private readonly random: () => number) {}

	/** The test that is done in place of the one advised, now and then any that can be done. */
	insteadOf(advised: PlacedTest, open: readonly PlacedTest[]): PlacedTest {
		if (open.length === 0 || this.random() >= OWN_ORDER) return advised;
		return open[Math.floor(this.random() * open.length)] ?? advised;
	}

	/** What gets noted of what a test has shown. */
	noted({ kind }: PlacedTest, seen: Seen, model: ReasonModel): Seen {
		if (READ_BY_TOOL.has(kind.id)) return seen;
		const chance = this.random();
		if (chance < FORGETS) return {};
		if (chance >= FORGETS + MISREADS) return seen;
		const keys = Object.keys(seen) as SignKey[];
		const key = keys[Math.floor(this.random() * keys.length)];
		const others = key ? (model.sign(key)?.outcomes ?? []).filter((one) => one !== seen[key]) : [];
		const other = others[Math.floor(this.random() * others.length)];
		return key && other !== undefined ? { ...seen, [key]: other } : seen;
	}
}
