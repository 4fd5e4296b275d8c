import { z } from 'zod';
import { Words } from '../../fields';

export const Signature = z.object({ statement: Words, verdict: Words });
