import { hexToBytes } from '@noble/hashes/utils.js';
import { FASTEST_HZ } from '../../core/live/refreshRate';
import { decodeIdentifier } from '../../core/uds/identifierValue';
import { parseValues } from '../../core/uds/readValues';
import { identifiers } from '../../../../library';
import type { LiveSignal } from '../../../../library/liveSignals';
import { linkIsLost, type VehicleLink } from '../../link/vehicleLink';

/** A module that did not answer is asked again only after this. */
const PAUSE_MS = 2000;
const NOT_AVAILABLE_KMH = 655.35;
const lengthOf = (id: string): number | null => identifiers.get(id)?.bytes ?? null;

export interface Sampling {
	nowMs: () => number;
	stopped: () => boolean;
	/** One reading of all signals, in their order; NaN where a module did not tell. */
	row: (timeS: number, values: Float64Array) => void;
	/** Called after each reading, for what else is asked meanwhile; tells why the line was lost, if it was. */
	between?: (timeS: number, values: Float64Array) => Promise<string | null>;
}

interface Group {
	address: number;
	request: number[];
	members: { at: number; signal: LiveSignal }[];
	pausedUntilMs: number;
}

/**
 * Asks for a set of signals again and again until it is stopped or the line is lost.
 *
 * @returns why it ended, null when it was stopped
 */
export async function sample(
	link: VehicleLink,
	signals: readonly LiveSignal[],
	{ nowMs, stopped, row, between }: Sampling
): Promise<string | null> {
	const groups = groupsOf(signals);
	const startMs = nowMs();
	for (;;) {
		const roundMs = nowMs();
		const values = new Float64Array(signals.length).fill(NaN);
		for (const group of groups) {
			if (stopped()) return null;
			if (nowMs() < group.pausedUntilMs) continue;
			const answer = await link.request(group.address, group.request);
			if (!answer.ok) {
				if (linkIsLost(answer.error)) return answer.error.text;
				group.pausedUntilMs = nowMs() + PAUSE_MS;
				continue;
			}
			read(answer.value, group, values);
		}
		const timeS = (roundMs - startMs) / 1000;
		row(timeS, values);
		if (stopped()) return null;
		const lost = (await between?.(timeS, values)) ?? null;
		if (lost) return lost;
		const restMs = 1000 / FASTEST_HZ - (nowMs() - roundMs);
		if (restMs > 1) await new Promise((resolve) => setTimeout(resolve, restMs));
	}
}

function groupsOf(signals: readonly LiveSignal[]): Group[] {
	const groups = new Map<string, Group>();
	for (const [at, signal] of signals.entries()) {
		const group = groups.get(signal.address) ?? {
			address: parseInt(signal.address, 16),
			request: [0x22],
			members: [],
			pausedUntilMs: -Infinity
		};
		group.request.push(...hexToBytes(signal.id));
		group.members.push({ at, signal });
		groups.set(signal.address, group);
	}
	return [...groups.values()];
}

function read(answer: Uint8Array, { members }: Group, values: Float64Array): void {
	const told = parseValues(answer, lengthOf);
	if (!told.ok) return;
	for (const { at, signal } of members) {
		const raw = told.value.get(signal.id);
		const rule = identifiers.get(signal.id);
		if (raw === undefined || !rule) continue;
		const value = decodeIdentifier(rule, raw);
		if (value.kind === 'number') values[at] = value.value * signal.factor;
		// A wheel that the module says it does not know is a finding, not a hole in the recording.
		else if (value.kind === 'not-available') values[at] = signal.unit === 'km/h' ? NOT_AVAILABLE_KMH : NaN;
	}
}
