import type { Fitting } from './payload';

/** What of a fitting is not as it should be, each a few words; empty = nothing. */
export function fittingLacks({ part, steps }: Fitting): string[] {
	return [
		...(part.fits === 'no' ? ['the part is not for this vehicle'] : []),
		...part.missing.map((what) => `missing: ${what}`),
		...(part.damage ? [`damage: ${part.damage}`] : []),
		...steps.flatMap(({ words, state, within, value, unit }) => {
			if (within === false) return [`${words}: ${value} ${unit} is not right`.trim()];
			return state === 'open' ? [`${words}: not done`] : [];
		})
	];
}
