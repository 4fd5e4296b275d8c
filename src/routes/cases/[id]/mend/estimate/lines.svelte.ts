import { MOST_MONEY, type Estimate, type Terms } from '$lib/case/entries/estimate/payload';
import { sumOf } from '$lib/core/money/estimate';
import { digitsOf, moneyRead, moneyTyped } from '$lib/core/money/money';

/** A line as it is typed. */
interface TypedLine {
	id: number;
	what: string;
	kind: 'work' | 'thing';
	/** Minutes, or an amount of money. */
	count: string;
	repair: Estimate['lines'][number]['repair'];
}

const MOST_MINUTES = 60_000;

/** The lines of an estimate while they are typed, and what they come to as far as they can be read. */
export class EstimateLines {
	lines = $state<TypedLine[]>([]);
	private nextId = 0;

	constructor(
		private readonly terms: Terms,
		start: Estimate['lines']
	) {
		this.begin(start);
	}

	begin(start: Estimate['lines']): void {
		this.lines = start.map((line) => ({
			id: this.nextId++,
			what: line.what,
			kind: 'minutes' in line ? 'work' : 'thing',
			count: 'minutes' in line ? String(line.minutes) : moneyTyped(line.amount, this.terms.currency),
			repair: line.repair
		}));
	}
	add(kind: TypedLine['kind']): void {
		this.lines.push({ id: this.nextId++, what: '', kind, count: '', repair: undefined });
	}
	remove(id: number): void {
		this.lines = this.lines.filter((line) => line.id !== id);
	}

	private read({ what, kind, count, repair }: TypedLine): Estimate['lines'][number] | null {
		const said = { what: what.trim(), ...(repair ? { repair } : {}) };
		if (said.what === '') return null;
		if (kind === 'work') {
			const minutes = count.trim() === '' ? NaN : Number(count.replace(',', '.'));
			return minutes >= 0 && minutes <= MOST_MINUTES ? { ...said, minutes } : null;
		}
		const amount = moneyRead(count, this.terms.currency);
		return amount === null || amount > MOST_MONEY ? null : { ...said, amount };
	}

	readonly readable = $derived(this.lines.map((line) => this.read(line)));
	/** What stands; null where a line cannot be read, or there is none. */
	readonly asked = $derived.by(() => {
		const all = this.readable.flatMap((line) => line ?? []);
		return all.length > 0 && all.length === this.lines.length ? all : null;
	});
	get sum() {
		return sumOf(
			this.readable.flatMap((line) => line ?? []),
			this.terms
		);
	}
	/** What the nth line comes to; null where it cannot be read. */
	amountOf(nth: number): number | null {
		const line = this.readable[nth];
		return line ? (sumOf([line], this.terms).lines[0] ?? null) : null;
	}
	/** Whether nobody would know which line to mend. */
	whyNot(): string | null {
		if (this.lines.length === 0) return 'An estimate has a line at least.';
		const wrong = this.readable.indexOf(null);
		if (wrong < 0) return null;
		const { what, kind } = this.lines[wrong] as TypedLine;
		if (what.trim() === '') return `Line ${wrong + 1}: what is it for?`;
		const digits = digitsOf(this.terms.currency);
		return kind === 'work'
			? `Line ${wrong + 1}: minutes, as a number.`
			: `Line ${wrong + 1}: an amount with ${digits === 0 ? 'no' : `up to ${digits}`} digits behind the point.`;
	}
}
