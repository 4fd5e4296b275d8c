import type { ReplacedWorth } from '../../../../../library/reason/ruledSigns';
import type { DoneByOthers } from '../../../../../library/reason/repairInduced';
import type { OneWork } from './payload';

/** What is worth how much of what others did, by what was said of it. */

const SOUND: readonly OneWork['grade'][] = ['maker’s own', 'branded'];
const POOR: readonly OneWork['grade'][] = ['no-name', 'used'];

/** Whether a part that was replaced speaks against a fault in it: a cheap or used one little, one that was only told of too. */
export const worthOf = ({ grade, seen }: OneWork): ReplacedWorth =>
	POOR.includes(grade) || seen === false
		? 'poor'
		: SOUND.includes(grade) && seen === true
			? 'sound'
			: 'usual';

/** Work leaves something behind soon, or not at all. */
const BY_AGE: Record<NonNullable<OneWork['ago']>, number> = { days: 1.3, weeks: 1, months: 0.5, years: 0.1 };
const BY_SOMEBODY_ELSE = 1.5;
/** How much likelier the part itself is bad than one that nobody touched. */
const BAD_PART: Record<OneWork['grade'], number> = {
	'maker’s own': 1,
	branded: 1,
	'no-name': 2,
	used: 2.5,
	unknown: 1
};

export const doneByOthers = (one: OneWork): DoneByOthers[] =>
	one.work === undefined
		? []
		: [
				{
					work: one.work,
					leaves: (one.ago ? BY_AGE[one.ago] : 1) * (one.fitter === 'somebody else' ? BY_SOMEBODY_ELSE : 1),
					badPart: BAD_PART[one.grade],
					position: one.position ?? null
				}
			];
