import type { Entry, PayloadOf } from '../entries/entry';

/** Stands for the module that reads the wheels. */
export const MODULE = 'module';

/**
 * What of ours is in the way of a reading: a signal in place of a sensor, or another wheel's part. What is read meanwhile of such a
 * wheel is no evidence of the vehicle, neither of a fault nor of its being gone.
 */
export class InTheWay {
	/** Signals that stand in for a sensor, by wheel. */
	readonly held = new Map<string, PayloadOf<'signal-held'>>();
	/** Wheels whose parts have changed places, and {@link MODULE} where one that is known to be good stands in. */
	readonly swapped = new Set<string>();

	follow(entry: Entry): void {
		if (entry.kind === 'signal-held') {
			if (entry.payload.on) this.held.set(entry.payload.position, entry.payload);
			else this.held.delete(entry.payload.position);
		} else if (entry.kind === 'swap') {
			const { position, with: other, state } = entry.payload;
			for (const place of other === null ? [MODULE] : [position, other]) {
				if (state === 'swapped') this.swapped.add(place);
				else this.swapped.delete(place);
			}
		}
	}

	at(wheel: string): boolean {
		return this.held.has(wheel) || this.swapped.has(wheel);
	}

	/** Places where something is in the way. */
	get places(): ReadonlySet<string> {
		return new Set([...this.held.keys(), ...this.swapped]);
	}
}

const kept = new WeakMap<readonly Entry[], ReadonlyMap<string, ReadonlySet<string>>>();

/**
 * Places at which something of ours was in the way, by the id of the entry that was written meanwhile; entries without are left out.
 *
 * @param entries standing entries in order
 */
export function inTheWay(entries: readonly Entry[]): ReadonlyMap<string, ReadonlySet<string>> {
	const known = kept.get(entries);
	if (known) return known;
	const state = new InTheWay();
	const found = new Map<string, ReadonlySet<string>>();
	for (const entry of entries) {
		state.follow(entry);
		const { places } = state;
		if (places.size > 0) found.set(entry.id, places);
	}
	kept.set(entries, found);
	return found;
}

/** What stands in the way after the last of these entries. */
export function inTheWayNow(entries: readonly Entry[]): InTheWay {
	const state = new InTheWay();
	for (const entry of entries) state.follow(entry);
	return state;
}

/** Whether a reading is of something of ours: in live data and drives each wheel is held against the others. */
function isDisturbed(entry: Entry, wheels: ReadonlySet<string>): boolean {
	switch (entry.kind) {
		case 'live-recording':
		case 'wheel-round':
		case 'proving-drive':
			return true;
		case 'scope-capture':
			return entry.payload.channels.some(({ position }) => position !== null && wheels.has(position));
		default:
			return false;
	}
}

/** The entries without the drives, live data and captures that were made while something of ours was in the way. */
export function undisturbed(entries: readonly Entry[]): readonly Entry[] {
	const way = inTheWay(entries);
	if (way.size === 0) return entries;
	return entries.filter((entry) => {
		const wheels = way.get(entry.id);
		return wheels === undefined || !isDisturbed(entry, wheels);
	});
}
