/** Something that went wrong or took long, as a lead reads it. */
export interface Trouble {
	at: string;
	kind: 'server' | 'browser' | 'slow' | 'slow-in-browser';
	/** The page or route that it was at. */
	path: string;
	/** What happened, in one line. */
	text: string;
	/** Who was there; null = nobody who was signed in. */
	username: string | null;
	/** Finds it in the log; null = it was told by a browser afterwards. */
	requestId: string | null;
}

/** So many are remembered, newest first; all of them are in the log. */
const REMEMBERED = 100;
const LONGEST = 300;

/** What went wrong since the server was started: a lead looks at it before anybody calls. */
export class Troubles {
	private readonly kept: Trouble[] = [];

	constructor(private readonly now: () => Date = () => new Date()) {}

	add(trouble: Omit<Trouble, 'at'>): void {
		const text = (trouble.text.split('\n')[0] ?? '').slice(0, LONGEST);
		this.kept.unshift({ ...trouble, text, at: this.now().toISOString() });
		this.kept.length = Math.min(this.kept.length, REMEMBERED);
	}

	newest(): readonly Trouble[] {
		return this.kept;
	}
}
