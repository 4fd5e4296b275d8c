import type { NetworkScan } from '../../case/entries/network-scan/payload';
import type { PayloadOf } from '../../case/entries/entry';

/** What came of work on a vehicle, told to the person: what happened, and what was saved. */

export const codesFound = (n: number): string => (n === 0 ? 'no codes' : n === 1 ? '1 code' : `${n} codes`);

export function scanOutcome(scan: NetworkScan): string {
	if (scan.outcome === 'partial') {
		const reached = `${scan.modules.length} of ${scan.modulesExpected} modules were reached`;
		return `${scan.stoppedBecause} ${reached}; that much is saved, marked partial.`;
	}
	const silent = scan.modules.filter((module) => !module.answered).map((module) => module.name);
	const tail = silent.length > 0 ? ` Silent: ${silent.join(', ')}.` : '';
	return `All ${scan.modulesExpected} modules asked; saved to the case.${tail}`;
}

export function findOutcome({ modules, stoppedBecause }: PayloadOf<'modules-found'>): string {
	const there = modules.filter(({ silent }) => silent === null).length;
	const silent = modules.length - there;
	const found = `${there} ${there === 1 ? 'module answers' : 'modules answer'}${silent > 0 ? `, ${silent} known to be there and silent` : ''}; saved to the case.`;
	return stoppedBecause ? `${stoppedBecause} ${found}` : found;
}

export function clearOutcome({ modules }: PayloadOf<'codes-cleared'>): string {
	const done = modules.filter((module) => module.outcome === 'cleared').length;
	const rest = modules.filter((module) => module.outcome !== 'cleared').map((m) => `${m.name}: ${m.detail}`);
	return [`${done} of ${modules.length} modules cleared; saved to the case.`, ...rest].join(' ');
}

export function calibrationOutcome({ name, state, detail, values }: PayloadOf<'calibration'>): string {
	const shown = values.flatMap(({ name: of, before, after, unit }) =>
		after === null ? [] : [`${of} ${before ?? 'none'} → ${after}${unit ? ` ${unit}` : ''}`]
	);
	const words = { done: 'done', failed: 'failed', interrupted: 'cut short' }[state];
	return [`${name}: ${words}; saved to the case.`, detail, shown.join(', ')].filter(Boolean).join(' ');
}
