/** What a tab wants to follow: a case, and of a case perhaps its live data. */
export interface Wish {
	caseId: string;
	live: 'none' | 'recent' | 'whole';
}
/** What a tab tells the one that holds the stream; of the case `anew` it has not been told how it stands. */
export type TabSays = { say: 'wishes'; wishes: Wish[]; anew?: string } | { say: 'here' } | { say: 'bye' };
/** What comes over the stream, for the tabs that wish it. */
export interface StreamNews {
	name: (typeof NEWS)[number];
	caseId: string;
	value: unknown;
}
export const NEWS = ['head', 'next', 'job', 'rows'] as const;

/** Address of the stream for all that is wished, the same for the same wishes; null where nobody wishes anything. */
export function streamAddress(wishes: readonly Wish[]): string | null {
	if (wishes.length === 0) return null;
	const of = (which: (wish: Wish) => boolean) =>
		[...new Set(wishes.filter(which).map(({ caseId }) => caseId))].sort();
	const query = new URLSearchParams([
		...of(() => true).map((id) => ['case', id]),
		...of(({ live }) => live === 'recent').map((id) => ['live', id]),
		...of(({ live }) => live === 'whole').map((id) => ['whole', id])
	]);
	return `/stream?${query}`;
}

const TRY_AGAIN_MS = 5_000;

/** One stream of events that follows whatever is wished of it at the moment. */
export class SharedStream {
	private source: EventSource | null = null;
	private address: string | null = null;
	private again: ReturnType<typeof setTimeout> | null = null;

	/** How each case stands, as it was last told. */
	private readonly stands = new Map<string, Map<StreamNews['name'], StreamNews>>();

	constructor(private readonly tell: (news: StreamNews) => void) {}

	/** How a case stands, for whoever comes to a stream that told it before. */
	standing(caseId: string): StreamNews[] {
		return [...(this.stands.get(caseId)?.values() ?? [])];
	}

	follow(wishes: readonly Wish[]): void {
		const address = streamAddress(wishes);
		if (address === this.address) return;
		this.address = address;
		this.open();
	}

	private open(): void {
		this.source?.close();
		if (this.again) clearTimeout(this.again);
		this.source = this.again = null;
		// A stream begins with how everything stands.
		this.stands.clear();
		if (this.address === null) return;
		const source = new EventSource(this.address);
		this.source = source;
		for (const name of NEWS)
			source.addEventListener(name, (event) => {
				const { case: caseId, value } = JSON.parse((event as MessageEvent<string>).data) as {
					case: string;
					value: unknown;
				};
				this.take({ name, caseId, value });
			});
		// It tries again by itself, but not where it was refused: somebody may sign in again.
		source.addEventListener('error', () => {
			if (source !== this.source || source.readyState !== EventSource.CLOSED) return;
			this.again = setTimeout(() => this.open(), TRY_AGAIN_MS);
		});
	}

	private take(news: StreamNews): void {
		if (news.name !== 'rows') {
			const stands = this.stands.get(news.caseId) ?? new Map<StreamNews['name'], StreamNews>();
			this.stands.set(news.caseId, stands.set(news.name, news));
		}
		this.tell(news);
	}
}
