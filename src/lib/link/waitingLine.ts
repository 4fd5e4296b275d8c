import { fail, type Result } from '../core/result';
import { trouble, type LinkError } from './vehicleLink';

/** What has come and waits to be taken, or who waits for what comes. */
export class WaitingLine<T> {
	private readonly waiting: ((next: Result<T, LinkError>) => void)[] = [];
	private readonly held: Result<T, LinkError>[] = [];
	private lost: LinkError | null = null;

	/** Why nothing more will come. */
	get broken(): LinkError | null {
		return this.lost;
	}

	/** Forgets what came and was not taken. */
	empty(): void {
		this.held.length = 0;
	}

	put(next: Result<T, LinkError>): void {
		const waiter = this.waiting.shift();
		if (waiter) waiter(next);
		else this.held.push(next);
	}

	/** Nothing more comes. */
	lose(error: LinkError): void {
		this.lost ??= error;
		for (const waiter of this.waiting.splice(0)) waiter(fail(this.lost));
	}

	/** @param otherwise what is said where nothing comes in time */
	next(withinMs: number, otherwise: string): Promise<Result<T, LinkError>> {
		const held = this.held.shift();
		if (held) return Promise.resolve(held);
		if (this.lost) return Promise.resolve(fail(this.lost));
		return new Promise((resolve) => {
			const settle = (result: Result<T, LinkError>) => {
				clearTimeout(timer);
				const at = this.waiting.indexOf(settle);
				if (at >= 0) this.waiting.splice(at, 1);
				resolve(result);
			};
			// After a stall of this process its timers run before its sockets are read: what has arrived is taken first.
			const tooLate = () => setImmediate(() => settle(fail(trouble('no-answer', otherwise))));
			const timer = setTimeout(tooLate, Math.max(0, withinMs));
			this.waiting.push(settle);
		});
	}
}
