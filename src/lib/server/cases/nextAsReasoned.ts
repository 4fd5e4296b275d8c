import type { NextStep } from '../../case/nextStep';
import { services } from '../running';
import type { LoadedCase } from './access';

/**
 * The next step of a case as far as it is worked out: by the thread's order at once, by the reasoning as soon as that has
 * followed. Nobody waits for it here; whoever has the case open hears when it is there.
 */
export async function nextAsReasoned({ row, thread, view }: LoadedCase): Promise<NextStep | null> {
	const { next } = view;
	if (!next?.seeks) return next;
	const outlook = await services().outlooks.of(row.id, thread.length);
	if (outlook?.seq !== thread.length || !outlook.nextTitle || !outlook.nextWhy) return next;
	return {
		...next,
		station: 'reason',
		anchor: 'next-test',
		title: outlook.nextTitle,
		why: outlook.nextWhy
	};
}
