import { z } from 'zod';
import { Ulid } from '$lib/case/entries/fields';
import { CustomerValues } from '$lib/server/db/customers';

/** Made under an id of the page: sent twice, they are one. */
export const NewCustomer = CustomerValues.extend({ id: Ulid });
/** @see Customers.change */
export const ChangedCustomer = CustomerValues.extend({ version: z.number().int().min(1) });
