/**
 * The status byte of a code (ISO 14229-1, annex D.2): eight independent bits.
 *
 * bit 0 test failed · 1 failed this operation cycle · 2 pending · 3 confirmed · 4 test not completed since last clear ·
 * 5 failed since last clear · 6 test not completed this operation cycle · 7 warning indicator requested
 */
export interface CodeStatus {
	testFailed: boolean;
	testFailedThisCycle: boolean;
	pending: boolean;
	confirmed: boolean;
	notTestedSinceClear: boolean;
	failedSinceClear: boolean;
	notTestedThisCycle: boolean;
	lampRequested: boolean;
}

export const STATUS_BITS = [
	'testFailed',
	'testFailedThisCycle',
	'pending',
	'confirmed',
	'notTestedSinceClear',
	'failedSinceClear',
	'notTestedThisCycle',
	'lampRequested'
] as const satisfies readonly (keyof CodeStatus)[];

/** What each bit says to a technician, when set. */
export const STATUS_WORDS: Record<keyof CodeStatus, string> = {
	testFailed: 'failing at this moment',
	testFailedThisCycle: 'failed since the key was turned on',
	pending: 'failed in this key cycle or the one before',
	confirmed: 'confirmed and stored',
	notTestedSinceClear: 'its test has not run since the last clear',
	failedSinceClear: 'failed since the last clear',
	notTestedThisCycle: 'its test has not run since the key was turned on',
	lampRequested: 'asks for the lamp'
};

/** Status byte 0–255 → the eight bits. */
export function decodeStatus(byte: number): CodeStatus {
	return Object.fromEntries(
		STATUS_BITS.map((name, bit) => [name, (byte & (1 << bit)) !== 0])
	) as unknown as CodeStatus;
}

/** The eight bits → status byte 0–255. */
export function encodeStatus(status: CodeStatus): number {
	return STATUS_BITS.reduce((byte, name, bit) => (status[name] ? byte | (1 << bit) : byte), 0);
}

const FAULT_BITS = 0b1010_1111;

/**
 * Whether the status tells of a fault at all. A module asked with mask FF also lists codes that never failed but whose
 * test has yet to run (bits 4 and 6 only): those are not findings.
 */
export const tellsOfFault = (byte: number): boolean => (byte & FAULT_BITS) !== 0;

/** The status as one plain phrase, strongest statement first. */
export function statusPhrase(byte: number): string {
	const status = decodeStatus(byte);
	if (status.testFailed) return status.confirmed ? 'failing now, confirmed' : 'failing now';
	if (status.confirmed)
		return status.testFailedThisCycle ? 'stored, failed since key-on' : 'stored, not failing now';
	if (status.pending) return 'seen once, not confirmed';
	if (status.failedSinceClear) return 'failed since the clear, quiet now';
	if (status.lampRequested) return 'asks for the lamp';
	if (status.notTestedSinceClear) return 'its test has not run since the clear';
	if (status.notTestedThisCycle) return 'tested good, not yet since key-on';
	return 'tested good';
}
