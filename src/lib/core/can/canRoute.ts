import { answerId, type DiagnosticPair } from '../bus/diagnosticPair';

/** The tester's address in identifiers of 29 bits (ISO 15765-4). */
export const TESTER = 0xf1;
const LAST_BYTE = 0xff;
const FIRST_STANDARD = 0x700;
const LAST_STANDARD = 0x7f7;

/**
 * The identifiers on which a module is asked and answers, by its address: one byte is its address of 29 bits with normal
 * fixed addressing (18DAttF1), 0700 to 07F7 the identifier of 11 bits that it is asked on. Null for an address that
 * says nothing about CAN, such as one of ISO 13400-2.
 */
export function routeOfAddress(address: number): DiagnosticPair | null {
	if (address >= 0 && address <= LAST_BYTE) {
		const request = (0x18da0000 | (address << 8) | TESTER) >>> 0;
		return { request, response: answerId(request, true), extended: true };
	}
	if (address < FIRST_STANDARD || address > LAST_STANDARD) return null;
	return { request: address, response: answerId(address, false), extended: false };
}
