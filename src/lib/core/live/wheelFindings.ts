import { MOST_STARTS, type FindingType, type LiveEvent, type LiveFinding } from './findings';
import { medianOf } from './medianOf';
import type { RoughStretch } from './roughness';
import { stuckSignal, type Stuck } from './stuck';
import { wheelEvents } from './wheelEvents';
import type { WheelTable } from './wheelTable';
import { kmhWords, wheelWords } from './words';

/** Both kinds of jump, each so often, make a signal erratic. */
const ERRATIC_EACH = 3;
/** A weak signal begins and ends at about one speed, within this factor. */
const WEAK_AGAIN = 1.25;

const times = (count: number) => (count === 1 ? 'once' : `${count} times`);

/** What one wheel's signal does that it should not, one finding a type. */
export function wheelFindings(
	table: WheelTable,
	k: number,
	rough: RoughStretch | null,
	brakeSwitch: Float64Array | null
): LiveFinding[] {
	const channel = table.names[k] ?? '';
	const name = wheelWords(channel);
	const at = (i: number) => table.timeS[i] ?? 0;
	const made: LiveFinding[] = [];
	const add = (type: FindingType, list: readonly LiveEvent[], value: number, text: string) => {
		const [first, last] = [list[0], list.at(-1)];
		if (!first || !last) return;
		made.push({
			type,
			channel,
			startS: at(first.from),
			endS: at(last.to),
			count: list.length,
			value,
			text,
			startsS: list.slice(0, MOST_STARTS).map(({ from }) => at(from))
		});
	};
	const stuck = stuckSignal(table, k);
	if (stuck) {
		const type = stuck.how === 'zero' ? 'stuck-zero' : 'stuck-invalid';
		add(type, [stuck], stuck.value, stuckText(name, stuck, at(stuck.from)));
		if (stuck.allAlong) return made;
	}
	// What belongs to the stretch in which it is stuck is told already.
	const outside = (list: LiveEvent[]) =>
		stuck ? list.filter(({ from, to }) => to < stuck.from || from > stuck.to) : list;
	const events = wheelEvents(table, k, brakeSwitch);
	const late = outside(events.latePickups);
	const early = outside(events.earlyLosses);
	const pickup = medianOf(late.map(({ value }) => value));
	const loss = medianOf(early.map(({ value }) => value));
	// Below the speed at which a weak signal begins, losing it again is the same cause.
	const weakKmh = Math.max(pickup || 0, loss || 0) * WEAK_AGAIN;
	const dropouts = outside(events.dropouts).filter(({ othersKmh }) => othersKmh > weakKmh);
	const spikes = outside(events.spikes);
	const wild = outside(events.wild);
	const { goneForGood } = events;
	if (goneForGood && !stuck) {
		const text = `${name} goes at ${at(goneForGood.from).toFixed(1)} s and stays at zero while the others roll.`;
		add('stuck-zero', [goneForGood], goneForGood.value, text);
	}
	if (isErratic(dropouts, spikes) || wild.length > 0 || (rough && !stuck)) {
		const jumps = [...dropouts, ...spikes, ...wild].sort((a, b) => a.from - b.from);
		const all = jumps.length > 0 ? jumps : rough ? [{ ...rough, value: rough.blocks, othersKmh: 0 }] : [];
		const text =
			jumps.length > 0
				? `${name} jumps up and collapses, ${times(jumps.length)}, where the others run smooth.`
				: `${name} jumps about all the time where the others run smooth.`;
		add('erratic', all, all.length, text);
	} else {
		const lowest = Math.min(...dropouts.map(({ value }) => value));
		const lows = `${name} falls to ${kmhWords(Math.max(0, lowest))} and returns, ${times(dropouts.length)}, while the others roll on.`;
		add('dropout', dropouts, lowest, lows);
		const highest = Math.max(...spikes.map(({ value }) => value));
		const jumps = `${name} jumps to ${kmhWords(highest)}, ${times(spikes.length)}, faster than any wheel can.`;
		add('spike', spikes, highest, jumps);
	}
	add('late-pickup', late, pickup, `${name} begins to read only at about ${kmhWords(pickup)}.`);
	const lost = `${name} reads zero already at about ${kmhWords(loss)}, while the vehicle still rolls.`;
	add('early-loss', early, loss, lost);
	const slips = outside(events.slips);
	add('slip', slips, slipValue(slips), slipText(name, slips));
	return made;
}

const isErratic = (dropouts: readonly LiveEvent[], spikes: readonly LiveEvent[]) =>
	dropouts.length >= ERRATIC_EACH && spikes.length >= ERRATIC_EACH;

function stuckText(name: string, { how, value, allAlong }: Stuck, fromS: number): string {
	const since = allAlong ? '' : ` from ${fromS.toFixed(1)} s on`;
	switch (how) {
		case 'zero':
			return `${name} stays at zero while the others roll.`;
		case 'never-read':
			return `${name} was never read: the module gives no value.`;
		case 'invalid':
			return `${name} tells "not available"${since}: an open circuit, or frozen after one. It is not a speed.`;
		case 'frozen':
			return `${name} is frozen at ${kmhWords(value)}${since} while the others change: the module no longer trusts the signal. Save and clear the code before this value is believed.`;
	}
}

/** The reading furthest from standing by: the highest of a spin, the lowest of a lock. */
const slipValue = (slips: readonly LiveEvent[]): number =>
	slips.reduce((far, { value }) => (far === 0 || value > far ? value : far), 0);

function slipText(name: string, slips: readonly LiveEvent[]): string {
	const value = slipValue(slips);
	return value < 8
		? `${name} locks under braking, ${times(slips.length)}, and turns up again with its mass: the wheel slips, the signal is good.`
		: `${name} leaves the speed of the road, ${times(slips.length)}, up to ${kmhWords(value)}, as a wheel with its mass does: it slips, the signal is good.`;
}
