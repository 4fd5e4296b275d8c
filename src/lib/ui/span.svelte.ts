/** The part of a recording or a capture that is seen, in seconds: moved and zoomed, never past its ends. */
export class Span {
	from = $state(0);
	to = $state(1);
	whole = $state.raw<[number, number]>([0, 1]);

	/** @param leastS nothing shorter is shown */
	constructor(private readonly leastS: number) {}

	/** Begins with all of it, or with a first part. */
	open(fromS: number, toS: number, firstS = Infinity): void {
		this.whole = [fromS, toS];
		[this.from, this.to] = [fromS, Math.min(toS, fromS + firstS)];
	}

	see(from: number, to: number): void {
		const [start, end] = this.whole;
		const span = Math.max(this.leastS, Math.min(to - from, end - start));
		const begin = Math.max(start, Math.min(from, end - span));
		[this.from, this.to] = [begin, begin + span];
	}

	all(): void {
		this.see(...this.whole);
	}

	zoom(factor: number): void {
		const middle = (this.from + this.to) / 2;
		const half = ((this.to - this.from) / 2) * factor;
		this.see(middle - half, middle + half);
	}

	pan(share: number): void {
		const by = (this.to - this.from) * share;
		this.see(this.from + by, this.to + by);
	}
}
