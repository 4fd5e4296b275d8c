import { z } from 'zod';
import schoolsFile from './schools.json' with { type: 'json' };
import { testKinds } from './tests';

const schools = z
	.array(z.object({ test: z.string(), instead: z.array(z.string()).min(1), words: z.string() }))
	.parse(schoolsFile.schools);

export interface School {
	/** Kinds of tests that others would do. */
	instead: readonly string[];
	words: string;
}

/** Where practised people disagree about a test: what the others do, and why. Null where there is no quarrel. */
export const schoolOf = (testKind: string): School | null =>
	schools.find(({ test, instead }) => test === testKind && instead.some((one) => testKinds.has(one))) ?? null;
