import { channelOf } from '../../../../library/positions';
import type { RoundResult } from '../entries/wheel-round/payload';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';
import { USUAL_TARGET, type Exposure } from '../../core/prove/exposure';
import { provokedChance } from '../../core/prove/provoked';
import { drivenKm, showsWhenWords } from './drivenKm';
import type { Entry, EntryOf } from '../entries/entry';
import type { ScannedModule } from '../entries/network-scan/payload';
import type { FindingType } from '../../core/live/findings';
import { statusIn, type CodeAt } from './proofHistory';
import type { RETURNS_FROM, ShowsWhen } from '../entries/returns-told/payload';
import { provokedAt } from './provocations';
import { ofKind } from '../thread/thread';

/** How often a fault that comes and goes came before, and where that is known from. */
export interface Returns {
	from: (typeof RETURNS_FROM)[number];
	returns: number;
	km: number;
}

/** A fault that comes and goes, as far as this case knows it. */
export interface Comes extends Exposure {
	/** Whose word `before` is; null where nobody has said. */
	from: EntryOf<'returns-told'>['payload']['from'] | null;
	showsWhen: ShowsWhen | null;
	/** When it shows, as it was told. */
	conditions: string;
	/** What the case itself holds on how often it came: a drive or a key cycle counts once, however often it showed in it. */
	known: Returns[];
}

/** What live data show of a signal that comes and goes. */
const PASSING: readonly FindingType[] = ['dropout', 'spike', 'erratic'];
/** What they show of one that is wrong as long as it turns. */
const LASTING: readonly FindingType[] = [
	'stuck-zero',
	'stuck-invalid',
	'late-pickup',
	'early-loss',
	'ratio-offset'
];
const LASTING_IN_ROUND: readonly RoundResult[] = ['dead', 'weaker'];

/**
 * Whether a fault comes and goes, and how often: told by a person, or where its code was stored and did not fail when it was
 * first read. That holds until it is shown otherwise: a later reading in which it fails, or live data in which its wheel is
 * wrong all the time. Null for one that is simply there, and for one that has no fault of its own behind it.
 */
export function comesOf(
	entries: readonly Entry[],
	code: CodeAt,
	others: readonly CodeAt[],
	ofItsOwn = true
): Comes | null {
	const told = ofKind(entries, 'returns-told')
		.filter(({ payload }) => payload.address === code.address && payload.dtc === code.dtc)
		.at(-1)?.payload;
	const clearedAt = entries.findLastIndex(({ kind }) => kind === 'codes-cleared');
	const before = entries.slice(0, clearedAt < 0 ? entries.length : clearedAt);
	const first = firstReading(entries, code);
	const fickle =
		ofItsOwn && first !== null && wasQuiet(first.module, code, others) && !isShownHard(before, code);
	if (!told && !fickle) return null;
	const known = ownReturns(entries.slice(0, Math.max(0, clearedAt)), code);
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
		target: told?.target ?? USUAL_TARGET,
		provoked: provokedChance(provokedAt(entries, code.corner)),
		showsWhen,
		conditions: told?.conditions ?? '',
		drivenSo: showsWhen ? showsWhenWords(showsWhen) : '',
		known
	};
}

function firstReading(entries: readonly Entry[], { address, dtc }: CodeAt) {
	for (const { payload } of ofKind(entries, 'network-scan')) {
		const module = payload.modules.find((one) => one.address === address && one.answered);
		const code = module?.codes.find((one) => one.dtc === dtc && tellsOfFault(one.status));
		if (module && code) return { module, code };
	}
	return null;
}

/** Stored, and neither it nor anything else at its wheel failed at that moment. */
function wasQuiet(module: ScannedModule, code: CodeAt, others: readonly CodeAt[]): boolean {
	const own = statusIn(module, code.dtc);
	if (own === null || decodeStatus(own).testFailed) return false;
	return !others.some((other) => {
		if (code.corner === null || other.corner !== code.corner || other.dtc === code.dtc) return false;
		const status = other.address === code.address ? statusIn(module, other.dtc) : null;
		return status !== null && decodeStatus(status).testFailed;
	});
}

/** Seen to be there and not to come and go: it failed when it was read or heard again, or its wheel was wrong throughout. */
function isShownHard(before: readonly Entry[], code: CodeAt): boolean {
	const channel = code.corner && channelOf(code.corner);
	return before.some((entry) => {
		if (entry.kind === 'network-scan') {
			const module = entry.payload.modules.find((one) => one.address === code.address && one.answered);
			const status = module ? statusIn(module, code.dtc) : null;
			return status !== null && decodeStatus(status).testFailed;
		}
		if (entry.kind === 'wheel-round')
			return entry.payload.corners.some(
				({ position, result }) => position === code.corner && LASTING_IN_ROUND.includes(result)
			);
		return (
			entry.kind === 'live-recording' &&
			entry.payload.findings.some((one) => one.channel === channel && LASTING.includes(one.type))
		);
	});
}

/**
 * Drives of our own in which its wheel was caught, over all that was driven while that wheel was recorded. A wheel that
 * drops out at every turn of its ring has come once: each drive counts as one return at most.
 */
function ownReturns(before: readonly Entry[], { corner }: CodeAt): Returns[] {
	const channel = corner && channelOf(corner);
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
