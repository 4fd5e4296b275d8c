/**
 * Key for a two-byte seed: its two's complement, as in the example of ISO 14229-1 (seed 3657, key C9A9). The stand-in
 * vehicle's modules use it; a maker's own modules have a key of their own, which only the maker gives out.
 */
export const securityKey = (seed: number): number => (0x10000 - seed) & 0xffff;
