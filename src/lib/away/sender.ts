import { RECORDED_AGO_MS, RECORDED_BY } from '../case/entries/recordedHeaders';
import {
	keyOf,
	photosIn,
	readAnswer,
	withHashes,
	type Answer,
	type Recorded,
	type Waiting
} from './recorded';
import { KeptAnother, type WaitingStore } from './waitingStore';

/** What became of one that was just recorded. */
export type Sent =
	/** The server has it. `text` is its answer; null = it was given to another tab. */
	| { state: 'arrived'; text: string | null }
	| { state: 'refused'; status: number; text: string; why: string; signed: boolean }
	/** It is kept on this device and goes by itself. */
	| { state: 'waits' };

export interface Ports {
	/** Whoever is signed in on this page; null = nobody. */
	who: () => { id: string; name: string } | null;
	fetch: typeof fetch;
	/** How the text of an answer becomes a value. */
	read: (text: string) => unknown;
	/** Does one piece of work at a time, whatever tab asks. */
	alone: <T>(work: () => Promise<T>) => Promise<T>;
	now: () => number;
	/** Resolves after so many milliseconds. */
	rest: (ms: number) => Promise<undefined>;
}

/** A server that has not answered by then is taken to be out of reach; more is allowed for what is large. */
const PATIENCE_MS = 20_000;
const SLOWEST_BYTES_PER_S = 20_000;
const patienceMs = (bytes: number): number => PATIENCE_MS + Math.ceil((bytes / SLOWEST_BYTES_PER_S) * 1000);

/**
 * Sends what is recorded, in the order that it was recorded in. Everything is put down on this device before it is sent, and
 * let go by the server's own word that it is stored: a lost network, a closed tab or a crash between the two loses nothing, and
 * as each has its id from the start, one that did arrive is not stored a second time.
 */
export class Sender {
	/** What hinders it; null = nothing, as far as is known. */
	hindered: 'away' | 'busy' | 'shut' | null = null;

	constructor(
		private readonly store: WaitingStore,
		private readonly ports: Ports
	) {}

	/** Puts one on its way. Rejects only where this device cannot keep it and the server cannot be reached. */
	async record(one: Recorded): Promise<Sent> {
		const { who, now } = this.ports;
		const by = who();
		const at = new Date(now()).toISOString();
		if (!by) throw new Error('Sign in first.');
		try {
			await this.store.keep(one, by, at);
		} catch (error) {
			if (error instanceof KeptAnother) throw error;
			// No room on this device, or none that a page may use: then it goes at once or not at all.
			return this.straight(one, by.id, at);
		}
		// Known to be out of reach: nobody stands and waits for it to be tried again.
		if (this.hindered === 'away') {
			void this.flush();
			return { state: 'waits' };
		}
		const answers = await Promise.race([this.flush(), this.ports.rest(patienceMs(one.body.length))]);
		// Something large goes before it, perhaps from another tab: nobody stands and waits for that either.
		if (!answers) return { state: 'waits' };
		const key = keyOf(one);
		const own = answers.get(key);
		// Whoever stands before it is told, and has it before them still.
		if (own?.state === 'refused') {
			await this.store.forget(key);
			return own;
		}
		if (own?.state === 'arrived') return own;
		if (await this.store.isWaiting(key)) return { state: 'waits' };
		// Another tab has sent it meanwhile.
		return { state: 'arrived', text: null };
	}

	/** Sends what waits here of whoever is signed in. @returns what the server said to each that was sent */
	flush(): Promise<Map<string, Answer>> {
		return this.ports.alone(async () => {
			const answers = new Map<string, Answer>();
			const me = this.ports.who()?.id;
			for (const one of await this.store.all()) {
				if (one.by !== me || one.refused !== undefined) continue;
				const answer = await this.send(one);
				answers.set(one.key, answer);
				if (answer.state === 'arrived')
					await this.store.arrived(one, this.hashIn(answer.text), this.ports.now());
				else if (answer.state === 'refused') await this.store.refuse(one.key, answer.why, answer.signed);
				else {
					// What was recorded later may build on this one.
					this.hindered = answer.state === 'shut' ? 'shut' : answer.away ? 'away' : 'busy';
					return answers;
				}
			}
			this.hindered = null;
			return answers;
		});
	}

	private async send(one: Waiting): Promise<Answer> {
		const body = await this.store.bodyOf(one.key);
		if (body === null)
			return {
				state: 'refused',
				status: 0,
				text: '',
				why: 'its contents are gone from this device',
				signed: false
			};
		const whole = typeof body === 'string' ? await this.filled(body) : body;
		return this.ask({ ...one, body: whole }, one.by, one.at);
	}

	private async ask(
		{ id, path, method = 'POST', type, body }: Recorded,
		by: string,
		at: string
	): Promise<Answer> {
		const { fetch, read, now } = this.ports;
		const headers = {
			'content-type': type,
			accept: 'application/json',
			// Asks for a form's answer as data; anything else ignores it.
			'x-sveltekit-action': 'true',
			[RECORDED_BY]: by,
			[RECORDED_AGO_MS]: String(Math.max(0, now() - Date.parse(at)))
		};
		try {
			const response = await fetch(path, {
				method,
				headers,
				body,
				signal: AbortSignal.timeout(patienceMs(body.length))
			});
			return await readAnswer(id, response, read);
		} catch {
			return { state: 'later', away: true };
		}
	}

	private hashIn(text: string): string | null {
		const said = this.ports.read(text) as { sha256?: unknown } | null;
		return typeof said?.sha256 === 'string' ? said.sha256 : null;
	}

	/** A body that names photos names them as the server keeps them, once it has said how. */
	private async filled(body: string): Promise<string> {
		const hashes = new Map<string, string | null>();
		for (const photoId of photosIn(body)) hashes.set(photoId, await this.store.hashOf(photoId));
		return withHashes(body, (photoId) => hashes.get(photoId));
	}

	private async straight(one: Recorded, by: string, at: string): Promise<Sent> {
		const answer = await this.ask(one, by, at);
		if (answer.state === 'arrived' || answer.state === 'refused') return answer;
		throw new Error('The server cannot be reached, and this device has no room to keep it.');
	}
}
