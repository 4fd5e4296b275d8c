import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { linkTypes } from '../library/index';
import { countsOf } from '../library/reason/outcomes';
import { reasonModel } from '../library/reason/model';
import { signs, signKey } from '../library/reason/signs';
import { allPlaces } from '../library/faultPlaces';
import { countedFromNow } from './countedFrom';

describe('the table of outcomes', () => {
	it('was counted from the library and the bench as they are now (npm run outcomes -- stamp, or count anew)', () => {
		const { countedFrom } = JSON.parse(readFileSync('library/reason/outcomes.json', 'utf8')) as {
			countedFrom: unknown;
		};
		expect(countedFrom).toEqual(countedFromNow());
	});

	it.each(linkTypes)('$id: every fault at every place changes at least one sign', (type) => {
		const model = reasonModel(type);
		const changed = new Set<number>();
		for (const sign of signs.values())
			for (const place of allPlaces(sign.about, type)) {
				const table = model.sign(signKey(sign.id, place));
				if (!table) continue;
				const width = table.outcomes.length;
				for (const fault of model.faults.keys()) {
					const row = (model.rows.length + fault) * width;
					const apart = table.outcomes.reduce(
						(sum, _, o) => sum + Math.abs((table.chance[row + o] ?? 0) - (table.sound[o] ?? 0)) / 2,
						0
					);
					if (apart > 0.2) changed.add(fault);
				}
			}
		const never = model.faults.filter((_, index) => !changed.has(index)).map(({ id }) => id);
		expect(never.join(' ')).toBe('');
		expect(countsOf.version).toBe(2);
	});
});
