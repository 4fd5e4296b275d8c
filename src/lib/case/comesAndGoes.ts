import { decodeStatus, tellsOfFault } from '../core/codes/status';
import type { Exposure } from '../core/prove/exposure';
import { drivenKm, showsWhenWords } from './drivenKm';
import type { Entry, ScannedCode, ScannedModule } from './entry';
import type { FindingType } from '../core/live/findings';
import { frozen, statusIn, type CodeId } from './proofStory';
import type { RETURNS_FROM, ShowsWhen } from './provePayloads';
import { latest, ofKind } from './thread';

/** How often a fault that comes and goes came before, and where that is known from. */
export interface Returns {
	from: (typeof RETURNS_FROM)[number];
	returns: number;
	km: number;
}

/** A fault that comes and goes, as far as this case knows it. */
export interface Comes extends Exposure {
	/** Whose word `before` is; null where nobody has said. */
	from: Returns['from'] | null;
	showsWhen: ShowsWhen | null;
	/** When it shows, as it was told. */
	conditions: string;
	/** What the case itself holds on how often it came. */
	known: Returns[];
}

const ODOMETER_ID = 'F4A6';
const TARGET = 0.05;
/** What live data show of a signal that comes and goes. */
const PASSING: readonly FindingType[] = ['dropout', 'spike', 'erratic'];

/**
 * Whether a fault comes and goes, and how often: told by a person, or read where it is stored though its test has passed
 * since in the same key cycle, and nothing else at its wheel fails at that moment. Null for one that is simply there.
 */
export function comesOf(entries: readonly Entry[], code: CodeId, others: readonly CodeId[]): Comes | null {
	const told = ofKind(entries, 'returns-told')
		.filter(({ payload }) => payload.address === code.address && payload.dtc === code.dtc)
		.at(-1)?.payload;
	const clearedAt = entries.findLastIndex(({ kind }) => kind === 'codes-cleared');
	const first = firstReading(entries, code);
	if (!told && !(first && comesAndGoes(first.module, code, others))) return null;
	const known = [
		...countedReturns(entries, first?.code ?? null),
		...ownReturns(entries.slice(0, Math.max(0, clearedAt)), code)
	];
	const showsWhen = told?.showsWhen ?? null;
	const [best] = known;
	return {
		before: told
			? { returns: told.returns, km: told.overKm }
			: best
				? { returns: best.returns, km: best.km }
				: null,
		from: told?.from ?? best?.from ?? null,
		afterKm: clearedAt < 0 ? 0 : drivenKm(entries, showsWhen),
		target: told?.target ?? TARGET,
		showsWhen,
		conditions: told?.conditions ?? '',
		drivenSo: showsWhen ? showsWhenWords(showsWhen) : '',
		known
	};
}

function firstReading(entries: readonly Entry[], { address, dtc }: CodeId) {
	for (const { payload } of ofKind(entries, 'network-scan')) {
		const module = payload.modules.find((one) => one.address === address && one.answered);
		const code = module?.codes.find((one) => one.dtc === dtc && tellsOfFault(one.status));
		if (module && code) return { module, code };
	}
	return null;
}

function comesAndGoes(module: ScannedModule, code: CodeId, others: readonly CodeId[]): boolean {
	const own = statusIn(module, code.dtc);
	if (own === null) return false;
	const { testFailed, confirmed, notTestedThisCycle, notTestedSinceClear } = decodeStatus(own);
	if (testFailed || !confirmed || notTestedThisCycle || notTestedSinceClear) return false;
	return !others.some((other) => {
		if (code.corner === null || other.corner !== code.corner || other.dtc === code.dtc) return false;
		const status = other.address === code.address ? statusIn(module, other.dtc) : null;
		return status !== null && decodeStatus(status).testFailed;
	});
}

/** Returns after the first, over the distance since then, by the module's own counter and its first snapshot. */
function countedReturns(entries: readonly Entry[], code: ScannedCode | null): Returns[] {
	const firstKm = frozen(code?.snapshots[0], ODOMETER_ID);
	const nowKm = Math.max(
		latest([...entries], 'vehicle-checked')?.payload.odometerKm ?? 0,
		frozen(code?.snapshots.at(-1), ODOMETER_ID) ?? 0
	);
	const returns = (code?.occurrences ?? 0) - 1;
	if (firstKm === null || returns < 1 || nowKm <= firstKm) return [];
	return [{ from: 'the counter of the module', returns, km: nowKm - firstKm }];
}

/**
 * Drives of our own in which its wheel was caught, over all that was driven while that wheel was recorded. A wheel that
 * drops out at every turn of its ring has come once: each drive counts as one return at most.
 */
function ownReturns(before: readonly Entry[], { corner }: CodeId): Returns[] {
	const channel = corner?.replace('-', '_');
	let returns = 0;
	let km = 0;
	for (const { payload } of ofKind(before, 'live-recording')) {
		if (!channel || !payload.bands || !payload.channels.includes(channel)) continue;
		km += payload.bands.reduce((sum, band) => sum + band.km, 0);
		const caught = payload.findings.some((one) => one.channel === channel && PASSING.includes(one.type));
		returns += caught ? 1 : 0;
	}
	return returns > 0 && km > 0 ? [{ from: 'our own drives', returns, km }] : [];
}
