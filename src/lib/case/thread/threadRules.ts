import { PAYLOADS } from '../entries/entry';
import { notWithdrawn } from './withdrawal';
import { knownEntry, type RawEntry } from './knownEntry';

/** Clocks differ a little. */
const CLOCK_SLACK_MS = 5 * 60_000;

/**
 * What of a thread that was written elsewhere could not have grown here, each in a sentence; empty = it obeys the same rules.
 *
 * @param now nothing was received later than this
 */
export function brokenRules(entries: readonly RawEntry[], now: Date): string[] {
	const [first] = entries;
	if (!first) return ['it holds no entry'];
	return [
		...(first.kind === 'case-opened' ? [] : ['it does not begin with the opening of a case']),
		...(entries.some(({ caseId }) => caseId !== first.caseId)
			? ['it holds entries of more than one case']
			: []),
		...entries.flatMap((entry, at) => rulesOfEntry(entries, entry, at, now))
	];
}

function rulesOfEntry(entries: readonly RawEntry[], entry: RawEntry, at: number, now: Date): string[] {
	const broken = (what: string) => `entry ${entry.seq} ${what}`;
	const problems: string[] = [];
	if (at > 0 && entry.kind === 'case-opened') problems.push(broken('opens the case again'));
	if (entry.kind === 'signature' && at < entries.length - 1)
		problems.push(`entry ${entry.seq + 1} comes after the signature`);
	if (Date.parse(entry.observedAt) > Date.parse(entry.receivedAt) + CLOCK_SLACK_MS)
		problems.push(broken('was observed after it was received'));
	if (Date.parse(entry.receivedAt) > now.getTime() + CLOCK_SLACK_MS)
		problems.push(broken('was received at a time that has not come yet'));
	if (entries.findIndex(({ id }) => id === entry.id) !== at) problems.push(broken('has the id of another'));
	if (entry.supersedes) {
		const target = entries.slice(0, at).find(({ id }) => id === entry.supersedes?.entryId);
		if (target?.kind !== entry.kind)
			problems.push(broken('corrects what is not before it, or of another kind'));
	}
	const known = knownEntry(entry);
	if (known.kind === 'withdrawn' && notWithdrawn(known.payload.entryId, entries.slice(0, at)) !== null)
		problems.push(broken('withdraws what is not before it, or cannot be withdrawn'));
	// A kind of a later version is shown as not known here; a known kind has the shape that it has.
	if (known.kind === 'unknown' && Object.hasOwn(PAYLOADS, entry.kind) && entry.version === 1)
		problems.push(broken(`is no ${entry.kind}: ${known.payload.why}`));
	return problems;
}
