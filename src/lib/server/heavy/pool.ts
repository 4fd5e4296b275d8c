import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { ServiceOptions } from '../serviceOptions';
import type { Busy } from './busy';
import type { Ask, HeavyWork, Input, Outcome, TaskName } from './tasks';

/** What a worker is sent, and what it sends back. */
export interface Order {
	id: number;
	/** Whose work it is, and where that lies. */
	shop: ServiceOptions;
	task: TaskName;
	input: unknown;
	/** Nobody waits for it. */
	patient: boolean;
}
export type Answer = { id: number; value: unknown } | { id: number; error: string };

interface Waiting {
	order: Order;
	limitMs: number;
	resolve: (value: never) => void;
	reject: (error: Error) => void;
	signal: AbortSignal | undefined;
	timer?: ReturnType<typeof setTimeout>;
}

/** Work of a shop that waits; more is refused at once, so that a crowd cannot fill the memory. */
const MOST_WAITING = 32;
/** And of all shops together. */
const MOST_OF_ALL = 256;
const LIMIT_MS = 60_000;

const STOPPING = 'The server is stopping.';

/** What a worker is started with. */
export interface WorkerStart {
	/** How far it steps back behind whoever is served (nice). */
	behind: number;
	/** A shop that it opens before it is asked for. */
	first?: ServiceOptions | undefined;
}

export class TooMuch extends Error implements Busy {
	readonly busy = true;
	constructor(text = 'The server is busy with other heavy work: try again in a moment.') {
		super(text);
	}
}

/** One worker and what it does now: one piece, and one more between the parts of a patient one. */
class Hand {
	worker: Worker | null = null;
	readonly doing = new Set<Waiting>();

	mayTake({ order: { patient } }: Waiting): boolean {
		return [...this.doing].every(({ order }) => order.patient && !patient);
	}
}

/**
 * Heavy work on other threads, of one shop or of many: a bounded queue for each, a time limit for each piece, and a way to
 * cancel. A worker that takes too long or dies is replaced; whoever waited for it is told. No shop waits for all that another
 * asked for: they are served in turn.
 */
export class WorkerPool {
	private readonly hands: Hand[];
	private readonly queue: Waiting[] = [];
	private next = 1;
	/** The turn in which each shop was served last. */
	private readonly served = new WeakMap<ServiceOptions, number>();
	private turn = 1;
	private closed = false;

	/**
	 * @param file the worker's own bundle
	 * @param start what each worker is started with
	 */
	constructor(
		private readonly file: string | URL,
		private readonly start: WorkerStart,
		size = Math.max(1, availableParallelism() - 1)
	) {
		this.hands = Array.from({ length: size }, () => new Hand());
	}

	/** Starts the workers before anybody waits for them. */
	warm(): this {
		for (const hand of this.hands) hand.worker ??= this.hire(hand);
		return this;
	}

	/** The work of one shop; closing it leaves the others' alone. */
	of(shop: ServiceOptions): HeavyWork {
		return {
			ask: (task, input, how) => this.ask(shop, task, input, how),
			close: () => Promise.resolve(this.forget(shop))
		};
	}

	private ask<N extends TaskName>(
		shop: ServiceOptions,
		task: N,
		input: Input<N>,
		{ signal, limitMs = LIMIT_MS, patient = false }: Ask = {}
	) {
		type Value = Outcome<N>;
		const waits = this.queue.filter(({ order }) => order.shop === shop).length;
		if (this.closed || waits >= MOST_WAITING || this.queue.length >= MOST_OF_ALL)
			return Promise.reject<Value>(new TooMuch());
		return new Promise<Value>((resolve, reject) => {
			const waiting: Waiting = {
				order: { id: this.next++, shop, task, input, patient },
				limitMs,
				resolve: resolve as Waiting['resolve'],
				reject,
				signal
			};
			if (signal?.aborted) return reject(new TooMuch('It was cancelled.'));
			signal?.addEventListener('abort', () => this.cancel(waiting), { once: true });
			this.queue.push(waiting);
			this.serve();
		});
	}

	async close(): Promise<void> {
		this.closed = true;
		for (const waiting of this.queue.splice(0)) waiting.reject(new TooMuch(STOPPING));
		await Promise.all(this.hands.map((hand) => this.dismiss(hand, STOPPING)));
	}

	/** What waits for a shop is given up; what is under way for it ends by itself. */
	private forget(shop: ServiceOptions): void {
		for (const waiting of this.queue.filter(({ order }) => order.shop === shop)) {
			this.queue.splice(this.queue.indexOf(waiting), 1);
			waiting.reject(new TooMuch(STOPPING));
		}
	}

	private serve(): void {
		for (const hand of this.hands) {
			for (let next = this.nextFor(hand); next; next = this.nextFor(hand)) {
				this.queue.splice(this.queue.indexOf(next), 1);
				this.give(hand, next);
			}
		}
	}

	/** What somebody waits for goes before what is patient; then the shop that was served longest ago, then who came first. */
	private nextFor(hand: Hand): Waiting | undefined {
		const servedAt = ({ order }: Waiting) => this.served.get(order.shop) ?? 0;
		return [...this.queue]
			.sort((a, b) => Number(a.order.patient) - Number(b.order.patient) || servedAt(a) - servedAt(b))
			.find((waiting) => hand.mayTake(waiting));
	}

	private give(hand: Hand, waiting: Waiting): void {
		hand.doing.add(waiting);
		this.served.set(waiting.order.shop, this.turn++);
		waiting.timer = setTimeout(() => {
			void this.dismiss(hand, 'It took too long and was stopped: is the file far larger than usual?');
		}, waiting.limitMs);
		(hand.worker ??= this.hire(hand)).postMessage(waiting.order);
	}

	private hire(hand: Hand): Worker {
		const worker = new Worker(this.file, { workerData: this.start });
		worker.on('message', (answer: Answer) => {
			const done = [...hand.doing].find(({ order }) => order.id === answer.id);
			if (hand.worker !== worker || !done) return;
			this.release(hand, done);
			if ('error' in answer) done.reject(new Error(answer.error));
			else done.resolve(answer.value as never);
			this.serve();
		});
		const lost = (error: unknown) => {
			if (hand.worker !== worker) return;
			hand.worker = null;
			this.rejectAll(hand, error instanceof Error ? error : new Error('The worker stopped.'));
			this.serve();
		};
		worker.on('error', lost);
		worker.on('exit', lost);
		// A server that stops does not wait for a worker that rests.
		worker.unref();
		return worker;
	}

	private release(hand: Hand, done: Waiting): void {
		clearTimeout(done.timer);
		hand.doing.delete(done);
	}

	private rejectAll(hand: Hand, error: Error): void {
		for (const one of hand.doing) {
			this.release(hand, one);
			one.reject(error);
		}
	}

	private async dismiss(hand: Hand, why: string): Promise<void> {
		const { worker } = hand;
		hand.worker = null;
		this.rejectAll(hand, new TooMuch(why));
		await worker?.terminate();
		if (!this.closed) this.serve();
	}

	private cancel(waiting: Waiting): void {
		const at = this.queue.indexOf(waiting);
		if (at >= 0) {
			this.queue.splice(at, 1);
			waiting.reject(new TooMuch('It was cancelled.'));
			return;
		}
		const hand = this.hands.find(({ doing }) => doing.has(waiting));
		if (hand) void this.dismiss(hand, 'It was cancelled.');
	}
}
