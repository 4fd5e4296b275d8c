import { onMount } from 'svelte';
import { ulid } from 'ulid';
import type { ShownTest } from '$lib/case/reason/reasonView';

export interface OpenedStep {
	/** Of the entry that it will become: sent twice, it is stored once. */
	entryId: string;
	test: ShownTest;
	beganAt: number;
	/** Length of the thread when it began. */
	afterSeq: number;
}

/** The step of a case that is being done, kept in this tab: its timer runs on while other pages are looked at. */
export class StepInHand {
	step = $state<OpenedStep | null>(null);

	/** @param headSeq length of the thread now */
	constructor(
		private readonly caseId: () => string,
		private readonly headSeq: () => number
	) {
		onMount(() => {
			try {
				const kept = sessionStorage.getItem(this.key);
				if (kept) this.step = JSON.parse(kept) as OpenedStep;
			} catch {
				sessionStorage.removeItem(this.key);
			}
		});
	}

	private get key(): string {
		return `jaldi:step:${this.caseId()}`;
	}

	open(test: ShownTest): void {
		this.step = { entryId: ulid(), test, beganAt: Date.now(), afterSeq: this.headSeq() };
		sessionStorage.setItem(this.key, JSON.stringify(this.step));
	}

	close(): void {
		this.step = null;
		sessionStorage.removeItem(this.key);
	}
}
