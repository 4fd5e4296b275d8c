import { z } from 'zod';
import { Ulid } from '../fields';

/**
 * Who brought the vehicle in, by the number they have in this shop. Their name and how they are reached stand with the customer
 * alone, where they can be changed and taken out: what is on a thread stays.
 */
export const BroughtBy = z.object({ customer: Ulid.nullable() });
