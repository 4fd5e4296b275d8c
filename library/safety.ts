import { z } from 'zod';
import file from './safety/exposures.json' with { type: 'json' };

/**
 * What can hurt or harm, in one place. A step of any kind says what it exposes (a connector that is open, a wheel that turns,
 * pressure, a motor that moves by itself); the cautions follow from that and are never written at the step itself.
 */

export interface Caution {
	id: string;
	words: string;
}
/** Words that a shop adds to an exposure, shown after the library's. */
export type ShopCautions = Readonly<Record<string, string>>;

const cautions: ReadonlyMap<string, string> = new Map(
	Object.entries(z.record(z.string(), z.string().min(10)).parse(file.cautions))
);
const read = z
	.record(z.string(), z.object({ what: z.string(), cautions: z.array(z.string()) }))
	.parse(file.exposures);

/** The one exposure that needs no caution: a step without any other must say it by name. */
export const NO_DANGER = 'no-danger';

/** Refuses an exposure that nothing is said about, and a caution that is not there. */
export function checkedExposures(
	of: Record<string, { what: string; cautions: string[] }>,
	texts: ReadonlyMap<string, string> = cautions
): ReadonlyMap<string, { what: string; cautions: readonly string[] }> {
	for (const [id, { cautions: list }] of Object.entries(of)) {
		if (id !== NO_DANGER && list.length === 0)
			throw new Error(`exposures.json: "${id}" is exposed and no caution is said`);
		const unknown = list.find((caution) => !texts.has(caution));
		if (unknown !== undefined) throw new Error(`exposures.json: "${id}" names no caution "${unknown}"`);
	}
	return new Map(Object.entries(of));
}

/** What a step can expose, by id. */
export const exposures = checkedExposures(read);

const Exposure = z.string().refine((id) => exposures.has(id), 'no such exposure');
/** What a step says that it exposes; it says `no-danger` where it exposes nothing. */
export const Exposes = z.array(Exposure).min(1, 'says what it exposes, or "no-danger"');
/** The same for a step that also exposes what follows from its other data. */
export const MoreExposes = z.array(Exposure);

/** Throws where a step comes to nothing that is exposed and does not say so by name: then it was forgotten. */
export function exposedOrSaid(step: string, exposed: readonly string[]): string[] {
	if (exposed.length === 0) throw new Error(`${step} does not say what it exposes`);
	return [...new Set(exposed)];
}

const order = [...cautions.keys()];

/** The cautions for what is exposed, each once, what hurts a person before what harms a part. */
export function cautionsOf(exposed: Iterable<string>, ofShop: ShopCautions = {}): Caution[] {
	const ids = new Set<string>();
	const own: Caution[] = [];
	for (const id of new Set(exposed)) {
		for (const caution of exposures.get(id)?.cautions ?? []) ids.add(caution);
		const words = Object.hasOwn(ofShop, id) ? ofShop[id] : undefined;
		if (words) own.push({ id: `shop:${id}`, words });
	}
	const known = order.filter((id) => ids.has(id)).map((id) => ({ id, words: cautions.get(id) ?? '' }));
	return [...known, ...own];
}

/** The same as one text. */
export const cautionWords = (exposed: Iterable<string>, ofShop: ShopCautions = {}): string =>
	cautionsOf(exposed, ofShop)
		.map(({ words }) => words)
		.join(' ');

const byGroup = z.record(z.string(), z.array(Exposure)).parse(file.byCodeGroup);
/** What work on a code of a group exposes. */
export const exposedByGroup = (group: string): readonly string[] =>
	Object.hasOwn(byGroup, group) ? (byGroup[group] ?? []) : [];
