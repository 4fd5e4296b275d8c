import { decodeIdentifier } from '../../src/lib/core/uds/identifierValue';
import { identifiers } from '../index';
import type { CodeForSigns } from './codeSigns';

const SPEED = 'F40D';
const SUPPLY = 'F442';

/** What a code says with the moment that its module kept of it: the first snapshot is of the time it was set first. */
export function codeForSigns({
	dtc,
	status,
	snapshots
}: {
	dtc: string;
	status: number;
	snapshots: readonly { values: readonly { id: string; raw: string }[] }[];
}): CodeForSigns {
	const number = (id: string): number | null => {
		const raw = snapshots[0]?.values.find((value) => value.id === id)?.raw;
		const rule = identifiers.get(id);
		const value = raw !== undefined && rule ? decodeIdentifier(rule, raw) : null;
		return value?.kind === 'number' ? value.value : null;
	};
	return { dtc, status, setAtKmh: number(SPEED), setAtVolts: number(SUPPLY) };
}
