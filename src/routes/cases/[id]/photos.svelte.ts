import { ulid } from 'ulid';
import { outbox } from '$lib/away/outbox.svelte';
import { hashToCome } from '$lib/away/recorded';
import { MOST_PHOTOS } from '$lib/case/entries/shapes';

/** Photos that are sent as they are chosen; an inspection names those that arrived. */
export class PhotoBox {
	kept = $state<{ id: string; sha256: string }[]>([]);
	trouble = $state<string | null>(null);
	sending = $state(0);
	private readonly here: Record<string, string> = $state({});

	constructor(private readonly caseId: () => string) {}

	async add(files: Iterable<File>): Promise<void> {
		this.trouble = null;
		for (const file of files) {
			if (this.kept.length >= MOST_PHOTOS) {
				this.trouble = `${MOST_PHOTOS} photos are the most for one look.`;
				return;
			}
			await this.send(file, ulid());
		}
	}

	/** Where a photo can be looked at: on this device while it has not reached the server. */
	addressOf(id: string): string {
		return this.here[id] ?? `/cases/${this.caseId()}/measure/photo/${id}`;
	}

	private async send(file: File, id: string): Promise<void> {
		this.sending += 1;
		try {
			const sent = await outbox.record({
				id,
				caseId: this.caseId(),
				what: `Photo ${file.name}`,
				path: `/cases/${this.caseId()}/measure/photo?id=${id}`,
				type: file.type || 'application/octet-stream',
				body: new Uint8Array(await file.arrayBuffer())
			});
			if (sent.state === 'refused') {
				this.trouble = `${file.name}: ${sent.why}`;
				return;
			}
			const said =
				sent.state === 'arrived' && sent.text ? (JSON.parse(sent.text) as { sha256: string }) : null;
			if (sent.state === 'waits') this.here[id] = URL.createObjectURL(file);
			this.kept.push({ id, sha256: said?.sha256 ?? hashToCome(id) });
		} catch {
			this.trouble = `${file.name}: it cannot be read. Choose it again.`;
		} finally {
			this.sending -= 1;
		}
	}

	drop(id: string): void {
		this.kept = this.kept.filter((one) => one.id !== id);
	}
}
