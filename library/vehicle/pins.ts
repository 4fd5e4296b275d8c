import { fail, ok, type Result } from '../../src/lib/core/result';
import type { Described } from './vehicleType';

/** Which pin of a module's plug does what: as long as nobody has told, a pin is called by what it does. */

const allOf = (role: string): string => `modules.${role}.pins`;

/** Where in a description it stands which pin does something. */
export const pinPath = (role: string, does: string): string => `${allOf(role)}.${does}`;

/** Whether somebody has told which pin does this. */
export const isPinTold = ({ assumed }: Pick<Described, 'assumed'>, role: string, does: string): boolean =>
	!assumed.includes(allOf(role)) && !assumed.includes(pinPath(role, does));

/** Longer is no pin of a plug. */
const PIN = /^[^\s.:\p{Cc}]{1,20}$/u;

/**
 * A description in which this pin of a module is called so, with every wire that goes to it; what the module's other pins are called
 * stays as open as it was. The error says what does not fit.
 *
 * @param does what the pin is for: `signal front-left`
 */
export function withPin(described: Described, role: string, does: string, pin: string): Result<Described> {
	const module = described.modules.find((one) => one.role === role);
	const before = Object.entries(module?.pins ?? {}).find(([, purpose]) => purpose === does)?.[0];
	if (!module || before === undefined) return fail('there is no such pin');
	if (!PIN.test(pin))
		return fail('a pin is called by a few letters or digits, without blanks and full stops');
	if (pin !== before && Object.hasOwn(module.pins, pin))
		return fail(`pin ${pin} does something else already`);
	const [from, to] = [`${role}.${before}`, `${role}.${pin}`];
	const open = described.assumed.includes(allOf(role))
		? Object.values(module.pins).map((purpose) => pinPath(role, purpose))
		: [];
	return ok({
		...described,
		modules: described.modules.map((one) =>
			one === module
				? {
						...one,
						pins: Object.fromEntries(
							Object.entries(one.pins).map(([name, purpose]) => [name === before ? pin : name, purpose])
						)
					}
				: one
		),
		harness: {
			...described.harness,
			conductors: described.harness.conductors.map((wire) => ({
				...wire,
				points: wire.points.map((point) => (point === from ? to : point))
			}))
		},
		assumed: [...described.assumed, ...open].filter(
			(path) => path !== allOf(role) && path !== pinPath(role, does)
		)
	});
}
