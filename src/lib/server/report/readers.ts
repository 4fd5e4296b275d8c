/** For whom a paper is: the whole of it for a technician, one page for the customer, a label for the key. */
export const READERS = ['technician', 'customer', 'tag'] as const;
export type Reader = (typeof READERS)[number];
