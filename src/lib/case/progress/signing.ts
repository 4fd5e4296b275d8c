import { openWords } from '../codes/openReason';
import type { CaseFacts } from '../codes/caseFacts';
import { standingItems } from './standingItems';
import { ofKind } from '../thread/thread';

/**
 * Why this lead may not sign now; null where they may. Whoever did the last repair does not judge it, unless the shop is too
 * small for that and has said so.
 */
export function mayNotSign(
	{ entries, open, signature }: CaseFacts,
	leadId: string,
	signOwnRepair: boolean
): string | null {
	if (signature) return 'It is signed already.';
	const [first] = open;
	if (first) return `Not yet: ${openWords(first)}`;
	const [standing] = standingItems(entries);
	if (standing) return `Not yet: ${standing.words}`;
	const last = ofKind(entries, 'repair').at(-1);
	if (last && last.authorId === leadId && !signOwnRepair)
		return 'The last repair is your own: another lead signs it, unless the shop allows it (Library, What this shop can do).';
	return null;
}

/**
 * All that stands between a case and its signature, in words: what its codes lack, the same code in many modules once, then what
 * else was found or said.
 */
export function leftOpen({ entries, open }: CaseFacts): string[] {
	const codes = open.filter((one) => one.reason === 'code');
	const lines = open.map((one) => {
		if (one.reason !== 'code') return openWords(one);
		const same = codes.filter(({ text, verdict }) => text === one.text && verdict === one.verdict);
		return same.length === 1 ? openWords(one) : openWords({ ...one, moduleName: `${same.length} modules` });
	});
	return [...new Set([...lines, ...standingItems(entries).map(({ words }) => words)])];
}

/**
 * Why a lead may not close this case unproven now; null where they may. Whatever else is open, a vehicle that leaves the shop is
 * a vehicle that somebody drives: nothing of ours stays in it.
 */
export function mayNotCloseUnproven(facts: CaseFacts): string | null {
	if (facts.signature) return 'It is signed already.';
	const ours = facts.open.find(({ reason }) => reason === 'ours-in-the-way');
	if (ours) return openWords(ours);
	return leftOpen(facts).length === 0 ? 'Nothing is open: sign it.' : null;
}
