import { deserialize } from '$app/forms';
import { ulid } from 'ulid';
import type { Recorded, Waiting } from './recorded';
import { Sender, type Sent } from './sender';
import { WaitingStore } from './waitingStore';

const AGAIN_MS = 5_000;
const LOOK_MS = 5_000;
const ONE_TAB = 'jaldi:outbox';

interface Member {
	id: string;
	name: string;
}

/** Answers of forms are written in the framework's own way, all others as JSON. */
function read(text: string): unknown {
	const said = JSON.parse(text) as { type?: unknown };
	return typeof said.type === 'string' ? deserialize(text) : said;
}

let turn: Promise<unknown> = Promise.resolve();
/** One tab at a time, where the browser can tell them apart; else one piece of work at a time in this one, which is as safe. */
function alone<T>(work: () => Promise<T>): Promise<T> {
	if (navigator.locks) return navigator.locks.request(ONE_TAB, work) as Promise<T>;
	const mine = turn.then(work);
	turn = mine.catch(() => undefined);
	return mine;
}

/** Whether the server answers now. */
export const serverAnswers = (): Promise<boolean> =>
	fetch('/healthz', { signal: AbortSignal.timeout(LOOK_MS) }).then(
		({ ok }) => ok,
		() => false
	);

/** What this device keeps for the server, as the pages show it. */
class Outbox {
	/** Everything that waits on this device, whoever recorded it. */
	waiting = $state.raw<readonly Waiting[]>([]);
	/** The server is out of reach, as far as is known. */
	away = $state(false);
	/** What waits cannot go until somebody signs in. */
	shut = $state(false);
	private store: WaitingStore | null = null;
	private sender: Sender | null = null;
	private timer: ReturnType<typeof setTimeout> | null = null;
	private who: () => Member | null = () => null;

	/** Sends what an earlier visit left, and whatever comes. Call once in the browser. @returns how to end it */
	begin(who: () => Member | null): () => void {
		this.who = who;
		const { store } = this.open();
		const now = () => void this.look();
		const stop = store.watch(
			(all) => {
				this.waiting = all;
				this.later();
			},
			// This browser keeps nothing for pages: what is recorded goes at once or not at all.
			() => undefined
		);
		addEventListener('online', now);
		addEventListener('offline', now);
		now();
		return () => {
			stop();
			removeEventListener('online', now);
			removeEventListener('offline', now);
			if (this.timer) clearTimeout(this.timer);
			this.timer = null;
		};
	}

	/** What waits of whoever is signed in here, and is not refused. */
	get mine(): Waiting[] {
		return this.own.filter(({ refused }) => refused === undefined);
	}

	/** What the server did not take of theirs. */
	get refused(): Waiting[] {
		return this.own.filter(({ refused }) => refused !== undefined);
	}

	private get own(): Waiting[] {
		const me = this.who()?.id;
		return this.waiting.filter(({ by }) => by === me);
	}

	/** To whoever has just recorded something that waits. */
	get keptWords(): string {
		if (this.shut)
			return 'You are signed out. It is kept on this device and goes once you are signed in again.';
		return `The server ${this.away ? 'is out of reach' : 'cannot take it now'}. It is kept on this device and goes by itself.`;
	}

	/** Puts one on its way. Where it can neither go nor be kept it counts as refused: whoever recorded it has it before them still. */
	async record(one: Recorded): Promise<Sent> {
		const { sender } = this.open();
		try {
			return await sender.record(one);
		} catch (error) {
			const why = error instanceof Error ? error.message : 'It cannot be sent.';
			return { state: 'refused', status: 0, text: '', why, signed: false };
		} finally {
			this.follow(sender);
		}
	}

	async flush(): Promise<void> {
		const { sender } = this.open();
		await sender.flush().catch(() => undefined);
		this.follow(sender);
	}

	/** Sends one that was refused once more. */
	async again({ key }: Waiting): Promise<void> {
		await this.open().store.again(key);
		await this.flush();
	}

	/** Lets one go for good. */
	forget({ key }: Waiting): Promise<void> {
		return this.open().store.forget(key);
	}

	bodyOf({ key }: Waiting): Promise<Recorded['body'] | null> {
		return this.open().store.bodyOf(key);
	}

	/** Puts an entry that came after the signature on the case's comeback, which it opens if there is none. @returns that case */
	async comeBack(one: Waiting): Promise<string | null> {
		const body = await this.bodyOf(one);
		if (typeof body !== 'string') return null;
		const ids = { id: ulid(), worksId: ulid() };
		const response = await fetch(`/cases/${one.caseId}/comeback`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ ...ids, entry: JSON.parse(body) as unknown })
		}).catch(() => null);
		const said = (await response?.json().catch(() => null)) as { caseId?: string } | null;
		if (!response?.ok || !said?.caseId) return null;
		await this.forget(one);
		return said.caseId;
	}

	private open(): { store: WaitingStore; sender: Sender } {
		const store = (this.store ??= new WaitingStore());
		this.sender ??= new Sender(store, {
			who: () => this.who(),
			fetch: (path, init) => fetch(path, init),
			read,
			alone,
			now: () => Date.now(),
			rest: (ms) => new Promise((resolve) => setTimeout(() => resolve(undefined), ms))
		});
		return { store, sender: this.sender };
	}

	private async look(): Promise<void> {
		if (this.mine.length > 0) return this.flush();
		this.away = !(await serverAnswers());
		const { sender } = this.open();
		if (!this.away && sender.hindered === 'away') sender.hindered = null;
		this.later();
	}

	private follow(sender: Sender): void {
		this.away = sender.hindered === 'away';
		this.shut = sender.hindered === 'shut';
		this.later();
	}

	/** Looks again in a moment while something waits or the server is away. */
	private later(): void {
		if (this.timer || (this.mine.length === 0 && !this.away)) return;
		this.timer = setTimeout(() => {
			this.timer = null;
			void this.look();
		}, AGAIN_MS);
	}
}

export const outbox = new Outbox();
