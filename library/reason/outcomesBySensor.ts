import { SOMETHING_ELSE } from '../../src/lib/core/path/model';
import type { Families } from '../wheelSensors';
import type { OutcomeBin } from './outcomes';
import type { Relation } from './relations';
import { outcomesOf, shownBy, soundChances } from './shownBy';
import type { Sign } from './signs';

/** Of several families, what none of them was seen to show has this chance in all. */
const NEVER_MET = 0.002;

/** What a sign can show where its sensor may be of several families: what each of them shows, by how likely each is. */
export class OutcomesBySensor {
	readonly outcomes: readonly string[];
	readonly sound: Float64Array;

	/** @param families that the sensor may be of */
	constructor(
		private readonly sign: Sign,
		families: Families
	) {
		const all = new Set(families.flatMap(([family]) => outcomesOf(sign, family)));
		// What nothing listed is stands last.
		if (all.delete(SOMETHING_ELSE)) all.add(SOMETHING_ELSE);
		this.outcomes = [...all];
		this.sound = this.mixed(families, (family, own) => soundChances(sign, family, own));
	}

	/** Chances under a fault; null where it shows as on a sound vehicle, whatever the sensor. */
	shownBy(
		faultAndClass: string,
		{ bin, relation, families }: { bin: OutcomeBin; relation: Relation; families: Families }
	): Float64Array | null {
		const shown = families.map(([family]) => shownBy(faultAndClass, this.sign, family, relation)[bin]);
		if (shown.every((one) => one === null)) return null;
		let nth = 0;
		return this.mixed(families, (family, own) => shown[nth++] ?? soundChances(this.sign, family, own));
	}

	private mixed(
		families: Families,
		chancesOf: (family: Families[number][0], outcomes: readonly string[]) => Float64Array
	): Float64Array {
		const [first] = families;
		const width = this.outcomes.length;
		if (first && families.length === 1) {
			const own = outcomesOf(this.sign, first[0]);
			const chances = chancesOf(first[0], own);
			if (own.length === width) return chances;
		}
		const all = new Float64Array(width).fill(NEVER_MET / width);
		for (const [family, p] of families) {
			const own = outcomesOf(this.sign, family);
			for (const [o, chance] of chancesOf(family, own).entries()) {
				const at = this.outcomes.indexOf(own[o] ?? '');
				all[at] = (all[at] ?? 0) + (1 - NEVER_MET) * p * chance;
			}
		}
		return all;
	}
}
