<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import type { Snippet } from 'svelte';
	import DropZone from './DropZone.svelte';

	/** Takes a file by drop or by choice, or text by paste; says what it would not take. */
	let {
		label,
		hint,
		text = $bindable(''),
		ontext,
		onfile,
		busy = false,
		more
	}: {
		label: string;
		hint: string;
		text: string;
		ontext: (text: string, name: string) => void;
		onfile: (file: File) => void;
		busy?: boolean;
		/** What else can be handed in here. */
		more?: Snippet;
	} = $props();

	/** The new text is in the field only after the event. */
	const pasted = () => setTimeout(() => ontext(text, ''));
</script>

<DropZone {label} chooserLabel="File to look through" class="mt-3" {busy} {onfile}>
	{#snippet children(choose)}
		<textarea
			class="field num"
			rows="4"
			aria-label={label}
			placeholder={hint}
			spellcheck="false"
			disabled={busy}
			bind:value={text}
			onpaste={pasted}></textarea>
		<div class="mt-2 flex flex-wrap items-center gap-3">
			<Act
				type="button"
				class="act-quiet"
				disabled={busy}
				whyNot={text.trim() === '' ? 'Paste something first.' : null}
				onclick={() => ontext(text, '')}>Check the text</Act
			>
			<button type="button" class="act-quiet" disabled={busy} onclick={choose}>Choose a file</button>
			{@render more?.()}
		</div>
	{/snippet}
</DropZone>
