import type { Entry, PayloadOf } from '../entries/entry';

/** Signals of ours that stand in for a sensor now, one a wheel. @param entries standing entries in order */
export function heldSignals(entries: readonly Entry[]): PayloadOf<'signal-held'>[] {
	const held = new Map<string, PayloadOf<'signal-held'>>();
	for (const entry of entries) {
		if (entry.kind !== 'signal-held') continue;
		if (entry.payload.on) held.set(entry.payload.position, entry.payload);
		else held.delete(entry.payload.position);
	}
	return [...held.values()];
}
