<script lang="ts">
	import type { Readable, Writable } from 'svelte/store';

	/** Foot of every entry form: why a correction is made, what went wrong, and the button. */
	interface Made {
		form: Writable<{ corrects: string; why: string }>;
		errors: Readable<{ why?: string[] }>;
		message: Readable<string | undefined>;
		submitting: Readable<boolean>;
		restored: boolean;
		forget: () => void;
	}
	let { made, save = 'Save' }: { made: unknown; save?: string } = $props();
	const entry = $derived(made as Made);
	const { form, errors, message, submitting } = (() => made as Made)();
</script>

<div class="mt-4 space-y-3">
	{#if $form.corrects !== ''}
		<label class="block">
			<span class="mb-1 block font-semibold">Why is it corrected?</span>
			<input
				class="field"
				bind:value={$form.why}
				aria-invalid={$errors.why ? 'true' : undefined}
				placeholder="The old entry stays on the thread"
			/>
			{#if $errors.why}<span role="alert" class="mt-1 block font-semibold">{$errors.why[0]}</span>{/if}
		</label>
	{/if}
	{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
	<div class="flex flex-wrap items-center gap-3">
		<button class="act" disabled={$submitting}>{$submitting ? 'Saving…' : save}</button>
		{#if entry.restored}
			<span class="text-sm text-ink-2">Brought back what you typed before.</span>
			<button type="button" class="act-quiet" onclick={entry.forget}>Discard</button>
		{/if}
	</div>
</div>
