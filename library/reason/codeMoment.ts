import { decodeIdentifier } from '../../src/lib/core/uds/identifierValue';
import { identifiers } from '../index';
import type { CodeForSigns } from './codeSigns';

const SPEED = 'F40D';
const SUPPLY = 'F442';
const OUTSIDE = 'F446';
const PENDING = 0x04;
const CONFIRMED = 0x08;

interface ToldCode {
	dtc: string;
	status: number;
	ageingCycles: number | null;
	snapshots: readonly { values: readonly { id: string; raw: string }[] }[];
}

/**
 * What a code says with the moment that its module kept of it: the first snapshot is of the time it was set first.
 *
 * @param mask status bits that the module has; null = not told
 */
export function codeForSigns(
	{ dtc, status, ageingCycles, snapshots }: ToldCode,
	mask: number | null
): CodeForSigns {
	const number = (id: string): number | null => {
		const raw = snapshots[0]?.values.find((value) => value.id === id)?.raw;
		const rule = identifiers.get(id);
		const value = raw !== undefined && rule ? decodeIdentifier(rule, raw) : null;
		return value?.kind === 'number' ? value.value : null;
	};
	// Confirmed and not pending: the last cycle in which its test ran to the end had no failure; an ageing counter counts those.
	const told = mask !== null && (mask & PENDING) !== 0;
	const passedSince =
		(ageingCycles ?? 0) > 0 || (told && (status & CONFIRMED) !== 0 && (status & PENDING) === 0);
	return {
		dtc,
		status,
		passedSince,
		setAtKmh: number(SPEED),
		setAtVolts: number(SUPPLY),
		setAtC: number(OUTSIDE)
	};
}
