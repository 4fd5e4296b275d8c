import { MOST_STRENGTH } from '../electrical/sensorTelegrams';
import type { SensorSays } from './findings';

/** `front_left` → `the front left`. */
export const channelWords = (name: string): string => name.replaceAll('_', ' ');
/** Volts with three figures, in millivolts below a tenth. */
export const voltWords = (volts: number): string =>
	Math.abs(volts) < 0.1 ? `${(volts * 1000).toFixed(0)} mV` : `${volts.toFixed(2)} V`;
export const times = (count: number): string =>
	count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`;

/** What a sensor says of itself, in sentences; empty where it says nothing that matters. */
export function saysWords({ read, wrong, weak, strength, standing, direction }: SensorSays): string[] {
	if (standing === read) return ['It says that no tooth passes.'];
	const lines: string[] = [];
	if (direction) {
		const { forwards, backwards, changesAt } = direction;
		if (changesAt.length > 0)
			lines.push(`Its direction changes at ${changesAt.slice(0, 3).map(secondWords).join(', ')}.`);
		else lines.push(`It says that it turns ${forwards >= backwards ? 'forwards' : 'backwards'}.`);
	}
	if (saysWeak({ weak, read })) lines.push(`In ${weak} of ${read} messages ${WEAK_WORDS}.`);
	if (strength !== null) lines.push(`Strength of the field: ${strength} of ${MOST_STRENGTH}.`);
	if (wrong > WRONG_SHARE * (read + wrong))
		lines.push(`${wrong} of ${read + wrong} of its messages cannot be read: something disturbs the wire.`);
	return lines;
}
/** Whether a sensor says of its field, and not of a tooth at the edge of the capture alone, that it is weak. */
export const saysWeak = ({ weak, read }: Pick<SensorSays, 'weak' | 'read'>): boolean =>
	weak > WEAK_SHARE * read;
export const WEAK_WORDS =
	'its sensor says that the field is only just strong enough: look at the gap, at dirt on the ring and at how it sits';
const WEAK_SHARE = 0.05;
const WRONG_SHARE = 0.05;
const secondWords = (seconds: number) => `${seconds.toFixed(2)} s`;
