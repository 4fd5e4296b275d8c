import { z } from 'zod';
import approachesFile from './approaches.json' with { type: 'json' };
import { testKinds } from './tests';

const approaches = z
	.array(z.object({ test: z.string(), instead: z.array(z.string()).min(1), words: z.string() }))
	.parse(approachesFile.approaches);

export interface School {
	/** Kinds of tests that others would do. */
	instead: readonly string[];
	words: string;
}

/** Where practised people disagree about a test: what the others do, and why. Null where there is no quarrel. */
export const approachOf = (testKind: string): School | null =>
	approaches.find(({ test, instead }) => test === testKind && instead.some((one) => testKinds.has(one))) ??
	null;
