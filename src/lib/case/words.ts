import type { Position } from '../../../library';

/** `rear-left` → "rear left", as people say it. */
export const positionWords = (position: Position): string => position.replace('-', ' ');
