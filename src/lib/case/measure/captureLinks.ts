import type { Link } from '../../../../library/links';
import type { ScopeFindingType } from '../../core/scope/findings';

/** Where along the path a tip was. */
export type ProbedAt = 'module' | 'sensor' | 'elsewhere';

/** A signal that is whole at a place proves what stands before it. */
const PROVES: Record<ProbedAt, readonly Link[]> = {
	sensor: ['ring', 'gap', 'sensor'],
	module: ['ring', 'gap', 'sensor', 'sensor-connector', 'harness', 'module-connector'],
	elsewhere: []
};
const MAGNETIC: readonly Link[] = ['ring', 'gap'];
const ELECTRIC: readonly Link[] = ['sensor-connector', 'harness', 'module-connector'];

/** What each finding points at, and what a signal that has it has still proven. */
const POINTS_AT: Record<ScopeFindingType, { implicates: readonly Link[]; leaves: readonly Link[] }> = {
	'missing-tooth': { implicates: ['ring'], leaves: ['sensor', ...ELECTRIC] },
	'run-out': { implicates: ['ring', 'gap'], leaves: ['sensor', ...ELECTRIC] },
	'low-amplitude': { implicates: ['ring', 'gap', 'sensor', 'harness'], leaves: [] },
	flat: { implicates: ['ring', 'gap', 'sensor', ...ELECTRIC, 'module-input'], leaves: [] },
	dropout: { implicates: ['gap', 'sensor', ...ELECTRIC], leaves: [] },
	spike: { implicates: ['harness', 'sensor-connector'], leaves: MAGNETIC },
	noise: { implicates: ['harness'], leaves: [] }
};

/** What a channel of a capture says of the links of its wheel's path. */
export function captureLinks(
	findings: readonly { type: ScopeFindingType }[],
	at: ProbedAt
): { proves: Link[]; implicates: Link[] } {
	const whole = PROVES[at];
	if (findings.length === 0) return { proves: [...whole], implicates: [] };
	// Probed at the sensor, nothing further on is blamed: but for the feed that an active one needs.
	const reachable = (link: Link) => at !== 'sensor' || whole.includes(link) || link === 'harness';
	const implicates = [...new Set(findings.flatMap(({ type }) => POINTS_AT[type].implicates))].filter(
		reachable
	);
	const proves = whole.filter(
		(link) =>
			!implicates.includes(link) && findings.every(({ type }) => POINTS_AT[type].leaves.includes(link))
	);
	return { proves, implicates };
}
