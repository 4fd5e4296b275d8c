<script lang="ts">
	import '../app.css';
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import { Toaster } from 'svelte-sonner';

	import DecoderDialog from './DecoderDialog.svelte';
	import { giveBackTypedEarly } from './typedEarly';

	let { children, data } = $props();
	onMount(() => {
		giveBackTypedEarly();
		// From here on a click is answered by the page itself.
		document.documentElement.dataset.ready = '';
	});
	$effect(() => {
		// A page that is read across the bay has the bay's colours whatever the reader's own are.
		document.documentElement.dataset.theme = page.data.colours ?? data.theme;
	});
</script>

{@render children()}
{#if data.member}<DecoderDialog canWrite={data.member.role !== 'viewer'} />{/if}
<Toaster
	position="bottom-left"
	toastOptions={{
		style: 'background: var(--color-neutral); color: var(--color-neutral-content); border: 0; font: inherit;'
	}}
/>
