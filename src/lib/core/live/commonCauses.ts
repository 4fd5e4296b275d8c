import type { CommonCause, LiveFinding } from './findings';
import type { WheelTable } from './wheelTable';
import { wheelWords } from './words';

/** Of the times of one wheel, so large a part must be those of the other. */
const TOGETHER_SHARE = 0.8;
const FEWEST_TIMES = 2;

const times = (count: number) => (count === 1 ? 'once' : `${count} times`);

/** All wheels gone at once: the supply, the module or the recording. */
export function wholeVehicle({ names, timeS, commonDrops }: WheelTable): CommonCause | null {
	if (commonDrops.length === 0) return null;
	return {
		channels: names,
		timesS: commonDrops.map((i) => timeS[i] ?? 0),
		text: `All ${names.length} wheels fall at once, ${times(commonDrops.length)}: look at the supply, the module or the recording, not at the sensors.`
	};
}

/** Wheels that drop out together again and again: what they share is at fault, not each of them. */
export function pairsTogether(findings: readonly LiveFinding[], slackS: number): CommonCause[] {
	const dropping = findings.filter(({ type }) => type === 'dropout' || type === 'erratic');
	const causes: CommonCause[] = [];
	for (const [i, one] of dropping.entries()) {
		for (const other of dropping.slice(i + 1)) {
			const shared = one.startsS.filter((a) => other.startsS.some((b) => Math.abs(a - b) <= slackS));
			const most = Math.max(one.startsS.length, other.startsS.length);
			if (shared.length < FEWEST_TIMES || shared.length < TOGETHER_SHARE * most) continue;
			causes.push({
				channels: [one.channel, other.channel],
				timesS: shared,
				text: `${wheelWords(one.channel)} and ${wheelWords(other.channel).toLowerCase()} go at the same moments, ${times(shared.length)}: look for what they share.`
			});
		}
	}
	return causes;
}
