import { z } from 'zod';
import { Words } from '../fields';
import { CodeWritten, FailureTypeByte } from '../codeShapes';

/** Two sources say different things about a code: which one the measurements on this vehicle support. */
export const SourceJudged = z.object({
	code: CodeWritten,
	failureType: FailureTypeByte.nullable(),
	supported: z.object({ packId: z.string().max(60), name: Words, says: Words }),
	against: z.array(z.object({ packId: z.string().max(60), name: Words, says: Words })).max(20),
	because: Words
});
