import { describe, it } from 'vitest';
import { faults } from '../../../../library/faults';
import { expectShownAndCured } from './life.fixture';

describe('a fault at a corner shows something a person could find, and nothing any more after each repair that cures it', () => {
	const here = [...faults.values()].filter((fault) => fault.at === 'corner');
	it.each(here.map((fault) => [fault.id, fault] as const))('%s', (_, fault) => expectShownAndCured(fault));
});
