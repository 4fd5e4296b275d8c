<script lang="ts">
	import { tick, type Snippet } from 'svelte';

	/**
	 * What cannot be undone: the first press asks, a second, elsewhere, does it. No key does it by itself – after the question the
	 * way back has the focus, so that whoever presses the same key twice has changed nothing.
	 */
	let {
		label,
		ask,
		yes,
		onyes,
		whyNot = null,
		class: looks = 'act-quiet',
		next = false,
		form = undefined
	}: {
		label: string;
		/** What will happen, and that it stays so. */
		ask: string;
		/** What the button says that does it. */
		yes: string;
		/** Absent = it sends the form that it stands in, or the one named. */
		onyes?: () => void;
		whyNot?: string | null;
		class?: string;
		/** The next step of the case leads here. */
		next?: boolean;
		form?: Snippet;
	} = $props();
	const uid = $props.id();
	let asking = $state(false);
	let back = $state<HTMLButtonElement | null>(null);

	async function question() {
		asking = true;
		await tick();
		back?.focus();
	}
	function done() {
		asking = false;
		onyes?.();
	}
</script>

{#if asking}
	<div role="group" aria-labelledby="{uid}-ask" class="my-2 border-l-4 border-ink pl-4">
		<p id="{uid}-ask" class="text-lg font-semibold">{ask}</p>
		{#if form}{@render form()}{/if}
		<div class="mt-2 flex flex-wrap items-center gap-4">
			<button bind:this={back} type="button" class="act-quiet" onclick={() => (asking = false)}
				>Not now</button
			>
			<button type={onyes ? 'button' : 'submit'} class="act" onclick={onyes ? done : undefined}>{yes}</button>
		</div>
	</div>
{:else}
	<span class="inline-flex flex-wrap items-center gap-x-3 gap-y-1">
		<button
			type="button"
			data-do={next ? '' : undefined}
			class={looks}
			disabled={whyNot !== null}
			aria-describedby={whyNot ? `${uid}-why` : undefined}
			onclick={question}>{label}</button
		>
		{#if whyNot}<span id="{uid}-why">{whyNot}</span>{/if}
	</span>
{/if}
