import { ulid } from 'ulid';
import { MOST_PHOTOS } from '$lib/case/entries/shapes';

/** Photos that are sent as they are chosen; an inspection names those that arrived. */
export class PhotoBox {
	kept = $state<{ id: string; sha256: string }[]>([]);
	trouble = $state<string | null>(null);
	sending = $state(0);

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

	private async send(file: File, id: string): Promise<void> {
		this.sending += 1;
		try {
			const response = await fetch(`/cases/${this.caseId()}/measure/photo?id=${id}`, {
				method: 'POST',
				body: file
			});
			const answer = (await response.json()) as { sha256?: string; message?: string };
			if (response.ok && answer.sha256) this.kept.push({ id, sha256: answer.sha256 });
			else this.trouble = `${file.name}: ${answer.message ?? 'the server refused it.'}`;
		} catch {
			this.trouble = `${file.name}: the server cannot be reached. Choose it again.`;
		} finally {
			this.sending -= 1;
		}
	}

	drop(id: string): void {
		this.kept = this.kept.filter((one) => one.id !== id);
	}
}
