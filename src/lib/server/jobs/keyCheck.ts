import type { PayloadOf } from '../../case/entries/entry';
import { fail, ok, type Result } from '../../core/result';
import type { VehicleLink } from '../../link/vehicleLink';
import { readIdentity } from '../../link/scan';

/** A network that has just been woken may need a moment: it is asked again for a few seconds. */
const TRIES = 6;
const PAUSE_MS = 500;

/**
 * Reads how often the key was turned and compares it with the count at the last clear: a key cycle is taken from the
 * vehicle, not from hope.
 */
export async function checkKeyCycle(
	link: VehicleLink,
	gateway: string,
	countBefore: number | null
): Promise<Result<PayloadOf<'key-cycled'>>> {
	for (let attempt = 1; attempt <= TRIES; attempt++) {
		const { keyCycles } = await readIdentity(link, gateway);
		if (keyCycles === null) {
			await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
			continue;
		}
		if (countBefore !== null && keyCycles <= countBefore) {
			return fail(
				`The gateway still counts ${keyCycles} key cycles, as at the clear. Turn the key off, wait ten seconds, turn it on.`
			);
		}
		return ok({ confirmedBy: 'vehicle', countBefore, countAfter: keyCycles });
	}
	return fail('The gateway does not tell its key count. Confirm the key cycle by hand.');
}
