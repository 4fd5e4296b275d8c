import { ADMIN_ACTS, type AdminActRow } from './adminLog';

const LONGEST = 200;

const shown = (value: unknown): string => {
	const text =
		typeof value === 'string'
			? value
			: Array.isArray(value) && value.every((one) => typeof one === 'string')
				? value.join(', ')
				: JSON.stringify(value);
	return text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text;
};

/** One act after the name of who did it: “changed the role of Ana Reit, technician → lead”. */
export function actWords({ what, facts }: Pick<AdminActRow, 'what' | 'facts'>): string {
	const { of, from, to } = facts;
	const change =
		to === undefined ? '' : from === undefined ? `: ${shown(to)}` : `: ${shown(from)} → ${shown(to)}`;
	return `${ADMIN_ACTS[what]} ${of}${change}`;
}
