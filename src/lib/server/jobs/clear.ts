import type { PayloadOf } from '../../case/entries/entry';
import { NEGATIVE, negativeResponseText } from '../../core/uds/negativeResponse';
import { linkIsLost, type VehicleLink } from '../../link/vehicleLink';

type Cleared = PayloadOf<'codes-cleared'>;
type Target = { address: string; name: string };

const NOT_ASKED = 'Not asked yet.';

/** Whether the request has gone out to a module. */
export const wasAsked = ({ outcome, detail }: Cleared['modules'][number]): boolean =>
	outcome !== 'unknown' || detail !== NOT_ASKED;

/** Whether any module was asked: before that nothing has changed on the vehicle. */
export const hasBegun = ({ modules }: Cleared): boolean => modules.some(wasAsked);

const CLEAR_ALL = [0x14, 0xff, 0xff, 0xff];

/** A clear that has not begun: every module's outcome is unknown until it answers. */
const emptyClear = (targets: Target[], keyCycles: number | null): Cleared => ({
	keyCycles,
	modules: targets.map((target) => ({ ...target, outcome: 'unknown', detail: NOT_ASKED }))
});

/**
 * Clears the codes of the given modules, one after another. Once the request is on the line its outcome is unknown until
 * the module answers, so that is what is written down before each one.
 */
export async function clearModules(
	link: VehicleLink,
	targets: Target[],
	keyCycles: number | null,
	sofar: (cleared: Cleared) => Promise<void>
): Promise<Cleared> {
	const cleared = emptyClear(targets, keyCycles);
	let lost: string | null = null;
	for (const module of cleared.modules) {
		if (lost) {
			Object.assign(module, { outcome: 'no-answer', detail: lost });
			continue;
		}
		module.detail = 'Asked; whether it cleared is not known.';
		await sofar(cleared);
		const answer = await link.request(parseInt(module.address, 16), CLEAR_ALL);
		if (!answer.ok) {
			if (linkIsLost(answer.error)) lost = answer.error.text;
			const unknown = answer.error.kind !== 'unreachable';
			Object.assign(module, { outcome: unknown ? 'unknown' : 'no-answer', detail: answer.error.text });
		} else if (answer.value[0] === NEGATIVE) {
			Object.assign(module, {
				outcome: 'refused',
				detail: `It refused: ${negativeResponseText(answer.value[2] ?? 0)}.`
			});
		} else {
			Object.assign(module, { outcome: 'cleared', detail: null });
		}
		await sofar(cleared);
	}
	return cleared;
}
