import type { EntryKind, PayloadOf } from '$lib/case/entries/entry';
import { ulid } from 'ulid';
import { ENTRY_VERSION } from '$lib/case/entries/entryVersion';

/** An entry as it will be sent, and why it was refused where it was. */
export interface Waiting {
	caseId: string;
	body: {
		id: string;
		kind: EntryKind;
		version: number;
		observedAt: string;
		payload: unknown;
		supersedes: null;
	};
	refused?: string;
	/** It was refused because its case was signed meanwhile. */
	signed?: boolean;
}

/** One place an entry: two tabs that keep at the same moment do not write over each other. */
const PREFIX = 'jaldi:outbox:';
const AGAIN_MS = 5_000;
/** What no sending again can mend: it says something that the server does not take. */
const REFUSALS = [400, 404, 409, 413, 422];

function kept(): Waiting[] {
	return Object.keys(localStorage)
		.filter((key) => key.startsWith(PREFIX))
		.sort()
		.flatMap((key) => {
			try {
				return [JSON.parse(localStorage.getItem(key) ?? '') as Waiting];
			} catch {
				return [];
			}
		});
}

/**
 * Entries made while the server was out of reach: kept on this device, through reloads and a closed tab, and sent once it
 * answers again. Each has its id from the start, so that one that did arrive is not stored a second time. What is refused
 * stays, with the reason, until somebody lets it go: nothing is lost without a word.
 */
class Outbox {
	waiting = $state.raw<readonly Waiting[]>([]);
	private timer: ReturnType<typeof setTimeout> | null = null;
	private sending: Promise<void> | null = null;

	/** Sends what an earlier visit left, and whatever comes. Call once in the browser. @returns how to end it */
	begin(): () => void {
		const now = () => void this.flush();
		const elsewhere = () => (this.waiting = kept());
		window.addEventListener('online', now);
		window.addEventListener('storage', elsewhere);
		now();
		return () => {
			window.removeEventListener('online', now);
			window.removeEventListener('storage', elsewhere);
			if (this.timer) clearTimeout(this.timer);
			this.timer = null;
		};
	}

	/** Puts an entry on its way. @returns whether it arrived now; else it is kept and goes later */
	async send<K extends EntryKind>(
		caseId: string,
		kind: K,
		payload: PayloadOf<K>,
		id: string
	): Promise<boolean> {
		const observedAt = new Date().toISOString();
		this.keep({ caseId, body: { id, kind, version: ENTRY_VERSION, observedAt, payload, supersedes: null } });
		await this.sending;
		await this.flush();
		return localStorage.getItem(PREFIX + id) === null;
	}

	/** Lets an entry go that was refused. */
	forget(id: string): void {
		localStorage.removeItem(PREFIX + id);
		this.waiting = kept();
	}

	/** Puts an entry that came after the signature on the case's comeback, which it opens if there is none. @returns that case */
	async comeBack({ caseId, body }: Waiting): Promise<string | null> {
		const ids = { id: ulid(), worksId: ulid() };
		const response = await fetch(`/cases/${caseId}/comeback`, {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ ...ids, entry: body })
		}).catch(() => null);
		const said = (await response?.json().catch(() => null)) as { caseId?: string } | null;
		if (!response?.ok || !said?.caseId) return null;
		this.forget(body.id);
		return said.caseId;
	}

	private keep(one: Waiting): void {
		localStorage.setItem(PREFIX + one.body.id, JSON.stringify(one));
		this.waiting = kept();
	}

	private flush(): Promise<void> {
		this.sending ??= this.sendAll().finally(() => {
			this.sending = null;
			this.waiting = kept();
			if (!this.waiting.some(({ refused }) => refused === undefined)) return;
			if (this.timer) clearTimeout(this.timer);
			this.timer = setTimeout(() => void this.flush(), AGAIN_MS);
		});
		return this.sending;
	}

	private async sendAll(): Promise<void> {
		for (const one of kept().filter(({ refused }) => refused === undefined)) {
			const response = await fetch(`/cases/${one.caseId}/entries`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify(one.body)
			}).catch(() => null);
			const said = (await response?.json().catch(() => null)) as {
				id?: string;
				message?: string;
				signed?: boolean;
			} | null;
			// Only the server's own word that it is stored lets go of it: a sign-in page in its place is none.
			if (response?.ok && said?.id === one.body.id) this.forget(one.body.id);
			else if (response && REFUSALS.includes(response.status))
				this.keep({
					...one,
					refused: said?.message ?? `the server answered ${response.status}`,
					signed: said?.signed === true
				});
			else return;
		}
	}
}

export const outbox = new Outbox();
