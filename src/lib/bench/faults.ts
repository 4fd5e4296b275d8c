import type { Position } from '../../../library';
import {
	GOOD_GAP_MM,
	GOOD_LEAD_OHMS,
	LARGEST_GAP_MM,
	OPEN_OHMS,
	type WheelCircuit
} from './physics/wheelSensor';

/** What can be wrong with the bench vehicle. Only the simulation knows which of these are present. */
export type BenchFault =
	| { kind: 'lead-open'; position: Position }
	| { kind: 'ring-loose'; position: Position; aboveKmh: number }
	| { kind: 'module-silent'; role: 'steering-angle' | 'cluster' | 'brake' };

/** What a person can do to a corner with tools in hand, right or wrong. */
export const REPAIRS = ['renew-lead', 'renew-sensor', 'refit-ring'] as const;
export type RepairAction = (typeof REPAIRS)[number];

/** Puts a fault into the physics of its corner. */
export function breakWheel(circuit: WheelCircuit, fault: BenchFault): void {
	if (fault.kind === 'lead-open') circuit.leadOhms = OPEN_OHMS;
	if (fault.kind === 'ring-loose') {
		const share = fault.aboveKmh / 100;
		circuit.gapSwingMmAt100 = (LARGEST_GAP_MM - circuit.gapMm) / (share * share);
	}
}

/** Changes the physics as the repair would; whether that cures anything is for the physics to say. */
export function mendWheel(circuit: WheelCircuit, action: RepairAction): void {
	if (action === 'renew-lead') circuit.leadOhms = GOOD_LEAD_OHMS;
	if (action === 'renew-sensor') circuit.sensorWorks = true;
	if (action === 'refit-ring') {
		circuit.gapMm = GOOD_GAP_MM;
		circuit.gapSwingMmAt100 = 0;
	}
}

/** `lead-open:rear-left`, `ring-loose:front-right:45`, `module-silent:cluster` → a fault. Throws naming what was expected. */
export function parseFault(text: string): BenchFault {
	const [kind, where, speed] = text.split(':');
	const corner = where as Position;
	const isCorner = ['front-left', 'front-right', 'rear-left', 'rear-right'].includes(where ?? '');
	if (kind === 'lead-open' && isCorner) return { kind, position: corner };
	if (kind === 'ring-loose' && isCorner && Number(speed) > 0) {
		return { kind, position: corner, aboveKmh: Number(speed) };
	}
	if (kind === 'module-silent' && (where === 'steering-angle' || where === 'cluster' || where === 'brake')) {
		return { kind, role: where };
	}
	throw new RangeError(
		`"${text}" is no fault: expected lead-open:CORNER, ring-loose:CORNER:KMH or module-silent:steering-angle|cluster|brake`
	);
}
