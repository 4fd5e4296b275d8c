import type { Entry } from '../entries/entry';
import type { Estimate } from '../entries/estimate/payload';
import { ofKind } from '../thread/thread';
import { upperFirst } from '../words';

/** A way to mend, as far as it costs something. */
export interface CostedWay {
	kind: string;
	place: string;
	/** As it is said: “renew the sensor, rear left”. */
	name: string;
	/** A part is thrown away for a new one. */
	part: boolean;
	minutesNow: number;
	/** Of parts and material, in whole units of the shop's money. */
	price: number;
	/** What it calls for afterwards. */
	after: readonly { name: string; minutes: number }[];
}

type Line = Estimate['lines'][number];

/** Minutes that were spent on finding the fault, by the timer of the steps that were done. */
export const minutesSpent = (entries: readonly Entry[]): number =>
	Math.round(
		ofKind(entries, 'test-step').reduce(
			(sum, { payload: { how, minutes } }) => sum + (how === 'done' ? (minutes ?? 0) : 0),
			0
		)
	);

/**
 * What an estimate begins with: the finding as far as it was timed, the way that was chosen with its parts at the usual price, and
 * what it calls for afterwards. Whoever makes the estimate changes all of it.
 *
 * @param digits of the currency behind the point
 */
export function estimateStart(entries: readonly Entry[], way: CostedWay | null, digits: number): Line[] {
	const spent = minutesSpent(entries);
	const finding: Line[] = spent > 0 ? [{ what: 'Finding the fault, as done so far', minutes: spent }] : [];
	if (!way) return finding;
	const repair = { kind: way.kind, place: way.place };
	return [
		...finding,
		{ what: upperFirst(way.name), minutes: Math.round(way.minutesNow), repair },
		...(way.price > 0
			? [
					{
						what: way.part ? `Part for it: ${way.name}` : `Material for it: ${way.name}`,
						amount: Math.round(way.price * 10 ** digits),
						repair
					}
				]
			: []),
		...way.after.map(({ name, minutes }): Line => ({ what: name, minutes }))
	];
}
