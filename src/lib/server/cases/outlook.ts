import { minutesToGoInParts, type MinutesToGo } from '../../core/path/minutesToGo';
import { randomFromText } from '../../core/path/randomFromText';
import { hasTold } from '../../case/codes/hasTold';
import { provingMinutes } from '../../case/progress/provingMinutes';
import { restsOn } from '../../case/reason/bearing';
import type { Reasoning } from '../../case/reason/reasoning';
import type { NextStep } from '../../case/progress/step';
import type { Outlook } from '../db/outlook';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { knownHere } from './knownHere';
import { nextStepOf } from './nextStep';
import { reasonOf, type ReasonedCase } from './reason';

const RUNS = 30;
/** What proving takes at least and at most, against its mean. */
const [QUICK, SLOW] = [0.6, 2];

/** What was worked out, as long as its reasoning is at hand. */
const known = new WeakMap<Reasoning, MinutesToGo>();

/** The same reasoning gives the same minutes. Whoever waits for a page or a vehicle's answer comes first. */
async function toGoOf({ turns }: Stores, { reasoning, entries }: ReasonedCase): Promise<MinutesToGo> {
	const before = known.get(reasoning);
	if (before) return before;
	const { model, situation, candidates, policy, accessGained } = reasoning;
	const random = randomFromText(restsOn(entries));
	const made = await turns.last(
		minutesToGoInParts(model, situation, candidates, policy, accessGained, random, RUNS)
	);
	known.set(reasoning, made);
	return made;
}

/** Minutes still to go of a case; null where nothing can be said yet. */
export type Minutes = Pick<Outlook, 'meanMinutes' | 'lowMinutes' | 'highMinutes'>;
const UNKNOWN: Minutes = { meanMinutes: null, lowMinutes: null, highMinutes: null };

/** How long a case may still take, for the floor. */
export async function minutesOf(stores: Stores, caseId: string): Promise<Minutes> {
	const loaded = await loadCase(stores, caseId);
	const { signature, next } = loaded.view;
	if (signature || !next || !hasTold(loaded.view)) return UNKNOWN;
	if (!next.seeks) {
		const mean = provingMinutes(loaded.view, next);
		return { meanMinutes: mean, lowMinutes: mean * QUICK, highMinutes: mean * SLOW };
	}
	const reasoned = await reasonOf(stores, loaded);
	if (!reasoned) return UNKNOWN;
	const { mean, low, high } = await toGoOf(stores, reasoned);
	return { meanMinutes: Math.round(mean), lowMinutes: Math.round(low), highMinutes: Math.round(high) };
}

/** The next step of a case as the reasoning has it, the length of the thread and what was known when it was worked out. */
export async function nextOf(
	stores: Stores,
	caseId: string
): Promise<{ seq: number; known: string; next: NextStep | null }> {
	const { stamp: known } = await knownHere(stores);
	const loaded = await loadCase(stores, caseId);
	const next = loaded.view.next?.seeks ? await nextStepOf(stores, loaded) : null;
	return { seq: loaded.thread.length, known, next };
}
