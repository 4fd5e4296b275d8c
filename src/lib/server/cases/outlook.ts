import { minutesToGoInParts, type MinutesToGo } from '../../core/path/minutesToGo';
import { randomFromText } from '../../core/path/randomFromText';
import type { Outlook } from '../jobs/outlooks';
import { inParts } from '../inParts';
import { loadCase, type LoadedCase } from './access';
import { nextStepOf } from './nextStep';
import { reasonOf, type ReasonedCase } from './reason';

const RUNS = 30;
/** Of what is only left to prove and to sign: drive, read, sign. */
const PROVING_MIN = 25;

/** The same thread gives the same minutes. Whoever waits for a page or a vehicle's answer comes first. */
async function toGoOf({ reasoning, entries }: ReasonedCase): Promise<MinutesToGo> {
	const { model, situation, candidates, policy, paid } = reasoning;
	const random = randomFromText(entries.at(-1)?.hash ?? '');
	return inParts(minutesToGoInParts(model, situation, candidates, policy, paid, random, RUNS));
}

/** How long a case may still take and what comes next, for the floor; null minutes where nothing can be said yet. */
export async function outlookOf(caseId: string): Promise<Outlook> {
	const loaded: LoadedCase = await loadCase(caseId);
	const seq = loaded.thread.length;
	const nothing = {
		seq,
		meanMinutes: null,
		lowMinutes: null,
		highMinutes: null,
		nextTitle: null,
		nextWhy: null
	};
	const { signature, lastScan, next } = loaded.view;
	if (signature || !lastScan) return nothing;
	if (!next?.seeks)
		return {
			...nothing,
			meanMinutes: PROVING_MIN,
			lowMinutes: PROVING_MIN * 0.6,
			highMinutes: PROVING_MIN * 2
		};
	const reasoned = await reasonOf(loaded);
	if (!reasoned) return nothing;
	const { mean, low, high } = await toGoOf(reasoned);
	const step = await nextStepOf(loaded);
	return {
		seq,
		meanMinutes: Math.round(mean),
		lowMinutes: Math.round(low),
		highMinutes: Math.round(high),
		nextTitle: step?.title ?? null,
		nextWhy: step?.why ?? null
	};
}
