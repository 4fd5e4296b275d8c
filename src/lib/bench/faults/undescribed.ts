import { z } from 'zod';
import { Fault } from '../../../../library/faults';
import file from './undescribed.json' with { type: 'json' };

/**
 * Faults that the library does not describe. They are for trials alone: nobody who reasons ever sees them, and what is told of
 * them has to be that it is something not described.
 */
export const undescribed = new Map(
	z
		.array(Fault)
		.parse(file.faults)
		.map((fault) => [fault.id, fault])
);
