import { z } from 'zod';
import { Words } from '../fields';

export const Note = z.object({ text: Words });
