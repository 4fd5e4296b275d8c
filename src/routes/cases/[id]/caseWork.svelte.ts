import { getContext, setContext } from 'svelte';
import { toast } from 'svelte-sonner';
import { ulid } from 'ulid';
import { purposeKey, type Purpose } from '$lib/case/entries/live-recording/payload';
import type { JobStatus } from '$lib/case/progress/jobStatus';
import { refreshCase } from '$lib/ui/refresh';

type Request =
	| { do: 'scan' }
	| { do: 'find' }
	| { do: 'clear'; only: string | null }
	| { do: 'key' }
	| { do: 'calibrate'; calibration: string; said: string[] }
	| { do: 'record'; signals: string[]; name: string; purpose?: Purpose; listen?: boolean };

const RUNS = {
	scan: 'The modules are being read',
	find: 'Modules are being searched',
	clear: 'Codes are being cleared',
	key: 'The key is being checked',
	record: 'A recording runs',
	calibrate: 'A module is being taught'
} as const satisfies Record<JobStatus['kind'], string>;
const LOST = 'The server stopped in the middle. What it had read by then is on the thread.';

/** Work on the vehicle of this case: begins it, follows it, and tells how it ended. */
export class CaseWork {
	job = $state<JobStatus | null>(null);
	/** Why the last wish was refused. */
	refusal = $state<string | null>(null);
	private readonly waiting: ((job: JobStatus | null) => void)[] = [];
	/** A request is on its way and its job has not been heard of yet. */
	private asking = $state(false);

	constructor(
		private readonly caseId: () => string,
		job: JobStatus | null,
		private readonly onVehicle: () => { linkAddress: string | null; elsewhere: JobStatus | null } = () => ({
			linkAddress: '',
			elsewhere: null
		})
	) {
		this.job = job;
	}

	/** Work on the same vehicle that was begun on another case. */
	get elsewhere(): JobStatus | null {
		return this.onVehicle().elsewhere;
	}

	/** Why nothing can be begun on the vehicle now, in a sentence; null where something can. */
	get whyNot(): string | null {
		if (this.job?.state === 'running') return `${RUNS[this.job.kind]}: see the top of the page.`;
		if (this.asking) return 'One moment …';
		if (this.elsewhere) return `${this.elsewhere.by} is at this vehicle on another case.`;
		return this.onVehicle().linkAddress === null ? 'No interface is set: give its address on Read.' : null;
	}

	/** Whether a recording runs that was begun for this: another one is not taken for it. */
	recordsFor(what: Purpose['what'], position: Purpose['position'] = null): boolean {
		const { job } = this;
		return (
			job?.kind === 'record' && job.state === 'running' && job.subject === purposeKey({ what, position })
		);
	}

	get busy(): boolean {
		return this.asking || this.job?.state === 'running';
	}

	/** Takes news of the work. None at all, while some was running, means that the server died over it. */
	set(job: JobStatus | null): void {
		if (job === null) {
			if (this.job?.state !== 'running') return;
			this.job = { ...this.job, state: 'failed', now: null, outcome: LOST };
			this.tellEnded();
			void refreshCase();
			return;
		}
		const ended = this.job?.id === job.id && this.job.state === 'running' && job.state !== 'running';
		this.job = job;
		if (!ended) return;
		this.tellEnded();
		void refreshCase();
	}

	/** Waits until no work runs. @returns the work that ended last, or null where there was none */
	ended(): Promise<JobStatus | null> {
		if (this.job?.state !== 'running') return Promise.resolve(this.job);
		return new Promise((resolve) => this.waiting.push(resolve));
	}

	private tellEnded(): void {
		for (const tell of this.waiting.splice(0)) tell(this.job);
	}

	begin(request: Request): Promise<void> {
		// The id is made here and kept for the retry, so that a lost answer cannot make it happen twice.
		return this.post({ ...request, entryId: ulid() });
	}

	/** Sets a mark in the running recording. */
	mark(label = ''): Promise<void> {
		return this.post({ do: 'mark', label });
	}

	cancel(): Promise<void> {
		return this.post({ do: 'cancel' });
	}

	private async post(body: object): Promise<void> {
		this.refusal = null;
		this.asking = true;
		try {
			const response = await this.send(body);
			const answer = (await response.json()) as { job?: JobStatus | null; message?: string };
			if (!response.ok) this.refusal = answer.message ?? 'The server refused.';
			// The news of a job may overtake the answer that it has begun: then the news is newer.
			else if (answer.job && answer.job.id !== this.job?.id) this.set(answer.job);
		} catch {
			toast.error('The server cannot be reached. Nothing was begun; try again.');
		} finally {
			this.asking = false;
		}
	}

	private send(body: object): Promise<Response> {
		const once = () =>
			fetch(`/cases/${this.caseId()}/work`, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify(body)
			});
		return once().catch(once);
	}
}

const KEY = Symbol('case work');
export const setCaseWork = (...of: ConstructorParameters<typeof CaseWork>) =>
	setContext(KEY, new CaseWork(...of));
export const getCaseWork = (): CaseWork => getContext(KEY);
