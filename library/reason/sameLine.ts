import type { VehicleType } from '../vehicles';
import { lineKey, signKey, signs, splitKey } from './signs';

/**
 * A bus line that was read at one module reads the same at every other of its segment, but for what is wrong between the two: the
 * second reading is hardly one of its own.
 *
 * @param seen outcome of a sign since the last repair; undefined = not read
 * @returns the key of the sign, given what was read before at another module, or as it is
 */
export function givenSameLine(
	key: string,
	seen: (key: string) => string | undefined,
	type: Pick<VehicleType, 'modules'>
): string {
	const { sign, place, before } = splitKey(key);
	if (before !== null || !signs.get(sign)?.ofLine || seen(key) !== undefined) return key;
	const segment = type.modules.find(({ role }) => role === place)?.segment;
	if (segment === undefined) return key;
	for (const { role, segment: own } of type.modules) {
		if (role === place || own !== segment) continue;
		const outcome = seen(signKey(sign, role));
		if (outcome !== undefined) return lineKey(key, role, outcome);
	}
	return key;
}
