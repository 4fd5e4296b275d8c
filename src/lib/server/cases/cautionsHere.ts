import type { VehicleType } from '../../../../library';
import { exposedAt } from '../../../../library/exposed';
import { cautionsOf, cautionWords, type Caution } from '../../../../library/safety';
import type { Stores } from '../stores';

/** What the exposures of a step come to in this shop: the library's cautions, then the shop's own. */
export interface CautionsHere {
	list: (exposed: readonly string[]) => Caution[];
	/** The same as one text, with what the place itself exposes; empty = nothing to say. */
	words: (exposed: readonly string[], place?: string) => string;
}

/** @param of null where the vehicle is not described; may still be on its way */
export async function cautionsHere(
	{ settings }: Pick<Stores, 'settings'>,
	of: VehicleType | null | Promise<VehicleType | null>
): Promise<CautionsHere> {
	const [ofShop, type] = await Promise.all([settings.read('cautions'), of]);
	return {
		list: (exposed) => cautionsOf(exposed, ofShop),
		words: (exposed, place) =>
			cautionWords([...exposed, ...(type && place ? exposedAt(type, place) : [])], ofShop)
	};
}
