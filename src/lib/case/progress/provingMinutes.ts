import { proofSteps } from '../proof/proofSteps';
import type { CaseFacts } from '../codes/caseFacts';
import type { NextStep } from './step';

/** What each step of proving takes, in its order. */
const STEPS = [
	{ anchor: 'clear', minutes: 2 },
	{ anchor: 'key', minutes: 2 },
	{ anchor: 'lamps', minutes: 1 },
	{ anchor: 'read', minutes: 3 },
	{ anchor: 'drive', minutes: 14 }
] as const;
/** After a drive it is read once more. */
const READ_AGAIN = 3;
const ALL = STEPS.reduce((sum, { minutes }) => sum + minutes, READ_AGAIN);

/** Workshop minutes from a step of proving to the signature, which itself takes none. */
export function provingMinutes(facts: CaseFacts, next: NextStep): number {
	if (next.anchor === 'sign') return 0;
	const from = STEPS.findIndex(({ anchor }) => anchor === next.anchor);
	if (from < 0) return ALL;
	if (next.anchor === 'read' && proofSteps(facts).drive) return READ_AGAIN;
	return STEPS.slice(from).reduce((sum, { minutes }) => sum + minutes, READ_AGAIN);
}
