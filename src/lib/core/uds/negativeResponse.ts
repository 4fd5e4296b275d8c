/** Negative response codes of ISO 14229-1 (annex A.1) that chassis modules answer with, in our own words. */
const NRC_TEXT: Record<number, string> = {
	0x10: 'refused without a reason',
	0x11: 'does not know this service',
	0x12: 'does not know this part of the service',
	0x13: 'wrong message length',
	0x14: 'the answer would be too long',
	0x21: 'busy, ask again',
	0x22: 'conditions are not right',
	0x24: 'asked in the wrong order',
	0x25: 'a unit behind it does not answer',
	0x26: 'a fault keeps it from doing this',
	0x31: 'does not hold what was asked for',
	0x33: 'access is locked',
	0x35: 'wrong key',
	0x36: 'too many wrong keys',
	0x37: 'must wait before trying again',
	0x70: 'does not accept the upload or download',
	0x72: 'programming failed',
	0x78: 'still working on it',
	0x7e: 'not in this session (part of the service)',
	0x7f: 'not in this session',
	0x83: 'engine must not run',
	0x84: 'engine must run',
	0x88: 'vehicle moves too fast',
	0x92: 'supply voltage too high',
	0x93: 'supply voltage too low'
};

/** Plain words for a negative response code, with its number for the ones nobody has named. */
export function negativeResponseText(nrc: number): string {
	return NRC_TEXT[nrc] ?? `refused with reason ${nrc.toString(16).toUpperCase().padStart(2, '0')}`;
}

export const RESPONSE_PENDING = 0x78;
export const NEGATIVE = 0x7f;
