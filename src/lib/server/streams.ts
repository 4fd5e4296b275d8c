/** Whose stream it is, and how to end it. */
interface Open {
	sessionId: string;
	end: () => void;
}

/** A browser holds one stream for all its tabs; a few more are reloads that have not been noticed yet. */
const MOST_PER_SESSION = 8;

/** Every stream of events that is open, so that a sign-out and a server that stops can end them. */
export class Streams {
	private readonly open = new Set<Open>();

	/** Takes a stream on the list; the oldest of a session that holds too many is ended. @returns how to take it off */
	add(sessionId: string, end: () => void): () => void {
		const one = { sessionId, end };
		const others = [...this.open].filter((each) => each.sessionId === sessionId);
		for (const old of others.slice(0, Math.max(0, others.length - MOST_PER_SESSION + 1))) this.drop(old);
		this.open.add(one);
		return () => this.open.delete(one);
	}

	get count(): number {
		return this.open.size;
	}

	endOf(sessionId: string): void {
		for (const one of this.open) if (one.sessionId === sessionId) this.drop(one);
	}

	endAll(): void {
		for (const one of this.open) this.drop(one);
	}

	private drop(one: Open): void {
		this.open.delete(one);
		one.end();
	}
}
