import { newtonMetres, torqueIsRight } from '$lib/core/calibrate/torque';
import type { Fitting } from '$lib/case/entries/fitting/payload';
import type { FittingSheet, FittingStep } from '$library/fittingSheets';
import { unitsHere } from '$lib/ui/units';

export const BLEED_WAYS = ['by pedal', 'by pressure', 'with the pump'] as const;
type BleedWay = (typeof BLEED_WAYS)[number];

/** What a hand has entered for one step. */
export interface Entered {
	done: boolean;
	/** As typed, in the unit that is chosen. */
	value: number | null;
	/** What the maker asks for at last, in the unit that is chosen, and where that stands. */
	asked: number | null;
	source: string;
	clips: number;
	bled: string[];
	/** The way it was bled. */
	how: BleedWay;
	/** Why it was left out; null = it was not. */
	leftOut: string | null;
}

export interface FitDraft {
	acknowledged: string[];
	number: string;
	fits: 'yes' | 'no' | 'not looked';
	missing: string[];
	damage: string;
	photos: { id: string; sha256: string }[];
	inPounds: boolean;
	steps: Record<string, Entered>;
}

const EMPTY: Entered = {
	done: false,
	value: null,
	asked: null,
	source: '',
	clips: 0,
	bled: [],
	how: 'by pedal',
	leftOut: null
};
const fresh = (): FitDraft => ({
	acknowledged: [],
	number: '',
	fits: 'not looked',
	missing: [],
	damage: '',
	photos: [],
	inPounds: unitsHere().torque === 'lb·ft',
	steps: {}
});

const tenth = (value: number | null) => (value === null ? null : Math.round(value * 10) / 10);

/** A sheet while it is worked through: kept in this browser until it is on the thread, through reload and lost server. */
export class Fit {
	draft = $state<FitDraft>(fresh());

	constructor(private readonly key: string) {
		try {
			const kept = localStorage.getItem(key);
			if (kept) this.draft = { ...fresh(), ...(JSON.parse(kept) as Partial<FitDraft>) };
		} catch {
			localStorage.removeItem(key);
		}
	}

	keep(): void {
		localStorage.setItem(this.key, JSON.stringify(this.draft));
	}

	forget(): void {
		localStorage.removeItem(this.key);
		this.draft = fresh();
	}

	of(id: string): Entered {
		return { ...EMPTY, ...this.draft.steps[id] };
	}

	set(id: string, change: Partial<Entered>): void {
		this.draft.steps = { ...this.draft.steps, [id]: { ...this.of(id), ...change } };
	}

	toggle(list: 'acknowledged' | 'missing', id: string, on: boolean): void {
		const others = this.draft[list].filter((one) => one !== id);
		this.draft[list] = on ? [...others, id] : others;
	}

	/** One step as it goes onto the thread. */
	step(one: FittingStep, wheels: readonly { id: string; words: string }[]): Fitting['steps'][number] {
		const entered = this.of(one.id);
		const base = {
			id: one.id,
			words: one.words,
			value: null,
			unit: '',
			within: null,
			note: ''
		};
		// Left out is only what has a reason.
		if (entered.leftOut !== null)
			return { ...base, state: entered.leftOut.trim() ? 'left-out' : 'open', note: entered.leftOut.trim() };
		const state = (done: boolean) =>
			done ? ('done' as const) : one.optional ? ('left-out' as const) : ('open' as const);
		switch (one.do) {
			case 'tick':
				return { ...base, state: state(entered.done) };
			case 'clips':
				return {
					...base,
					state: state(entered.clips >= one.count),
					note: `${entered.clips} of ${one.count} clips`
				};
			case 'bleed': {
				const done = wheels.filter(({ id }) => entered.bled.includes(id)).map(({ words }) => words);
				return {
					...base,
					state: state(done.length === wheels.length),
					note: `${entered.how}: ${done.join(', ') || 'none'}`
				};
			}
			case 'measure': {
				const { value } = entered;
				const within = value === null ? null : value >= one.low && value <= one.high;
				return { ...base, state: state(value !== null), value, unit: one.unit, within };
			}
			case 'torque': {
				const inNewtonMetres = (value: number | null) =>
					value === null ? null : this.draft.inPounds ? newtonMetres(value) : value;
				const drawn = inNewtonMetres(entered.value);
				const asked = inNewtonMetres(entered.asked);
				return {
					...base,
					state: state(drawn !== null),
					value: tenth(drawn),
					unit: 'N·m',
					asked: tenth(asked),
					source: entered.source.trim(),
					// The library's value is an example: only the maker's is held against.
					within: drawn === null || asked === null ? null : torqueIsRight(asked, drawn),
					note: one.singleUse ? 'new fastener' : ''
				};
			}
		}
	}

	/** The whole sheet as it goes onto the thread. */
	payload(
		sheet: FittingSheet,
		place: string | null,
		wheels: readonly { id: string; words: string }[]
	): Fitting {
		const { acknowledged, number, fits, missing, damage, photos } = this.draft;
		const wordsOf = (id: string) => sheet.part.complete.find((one) => one.id === id)?.words ?? id;
		return {
			sheet: sheet.id,
			name: sheet.name,
			place,
			acknowledged,
			part: {
				number: number.trim(),
				fits,
				missing: missing.map(wordsOf),
				damage: damage.trim(),
				photos
			},
			steps: sheet.steps.map((one) => this.step(one, wheels))
		};
	}
}
