import { toast } from 'svelte-sonner';
import type { EntryKind, PayloadOf } from '$lib/case/entry';
import { ENTRY_VERSION } from '$lib/case/entryVersion';

/** An entry as it will be sent. */
interface Waiting {
	caseId: string;
	body: {
		id: string;
		kind: EntryKind;
		version: number;
		observedAt: string;
		payload: unknown;
		supersedes: null;
	};
}

const KEY = 'jaldi:outbox';
const AGAIN_MS = 5_000;

function kept(): Waiting[] {
	try {
		return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Waiting[];
	} catch {
		return [];
	}
}

/**
 * Entries made while the server was out of reach: kept on this device, through reloads and a closed tab, and sent once it
 * answers again. Each has its id from the start, so that one that did arrive is not stored a second time.
 */
class Outbox {
	waiting = $state(0);
	private timer: ReturnType<typeof setTimeout> | null = null;
	private sending = false;

	/** Sends what an earlier visit left, and whatever comes. Call once in the browser. */
	begin(): () => void {
		this.waiting = kept().length;
		const now = () => void this.flush();
		window.addEventListener('online', now);
		now();
		return () => {
			window.removeEventListener('online', now);
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
		const body = {
			id,
			kind,
			version: ENTRY_VERSION,
			observedAt: new Date().toISOString(),
			payload,
			supersedes: null
		};
		this.keep([...kept().filter((one) => one.body.id !== id), { caseId, body }]);
		await this.flush();
		return !kept().some((one) => one.body.id === id);
	}

	private keep(list: Waiting[]): void {
		localStorage.setItem(KEY, JSON.stringify(list));
		this.waiting = list.length;
	}

	private async flush(): Promise<void> {
		if (this.sending) return;
		this.sending = true;
		try {
			for (const one of kept()) {
				const response = await fetch(`/cases/${one.caseId}/entries`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify(one.body)
				}).catch(() => null);
				// Not reached, or it is not itself: later.
				if (!response || response.status >= 500) break;
				this.keep(kept().filter(({ body }) => body.id !== one.body.id));
				if (!response.ok) {
					const said = (await response.json().catch(() => null)) as { message?: string } | null;
					toast.error(`An entry that waited was refused: ${said?.message ?? response.status}.`);
				}
			}
		} finally {
			this.sending = false;
			if (kept().length > 0) {
				if (this.timer) clearTimeout(this.timer);
				this.timer = setTimeout(() => void this.flush(), AGAIN_MS);
			}
		}
	}
}

export const outbox = new Outbox();
