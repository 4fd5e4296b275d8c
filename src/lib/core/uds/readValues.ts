import { hex } from '../bytes';
import { fail, ok, type Result } from '../result';

/**
 * Answer to 22 with several identifiers: 62, then identifier(2) + data for each that the module tells (ISO 14229-1, 11.2).
 * Their lengths are not in the message: they come from the vehicle's identifier list.
 *
 * @param lengthOf bytes of an identifier's value, or null when unknown
 * @returns raw hex by identifier
 */
export function parseValues(
	bytes: Uint8Array,
	lengthOf: (id: string) => number | null
): Result<Map<string, string>> {
	if (bytes[0] !== 0x62) return fail('expected an answer to service 22');
	const values = new Map<string, string>();
	for (let at = 1; at < bytes.length;) {
		if (at + 2 > bytes.length) return fail(`the answer is cut at byte ${at}`);
		const id = hex(bytes.slice(at, at + 2));
		const length = lengthOf(id);
		if (length === null) return fail(`identifier ${id} at byte ${at} is not described for this vehicle`);
		if (at + 2 + length > bytes.length) return fail(`value of ${id} at byte ${at} is cut`);
		values.set(id, hex(bytes.slice(at + 2, at + 2 + length)));
		at += 2 + length;
	}
	return ok(values);
}
