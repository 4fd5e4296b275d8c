import fc from 'fast-check';
import { describe, it } from 'vitest';
import { FUZZED } from './fuzzProperties';

describe('anything at all from outside never breaks', () => {
	it.each(FUZZED)('$name', ({ property }) => {
		fc.assert(property as fc.IProperty<unknown>, { numRuns: 400 });
	});
});
