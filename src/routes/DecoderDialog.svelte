<script lang="ts">
	import { goto } from '$app/navigation';
	import { refreshCase } from '$lib/ui/refresh';
	import { page } from '$app/state';
	import { flushSync, onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import type Decoder from '$lib/ui/Decoder.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { sendEntry } from '$lib/away/record';
	import { askDecoder, notedCode } from './decoderClient';

	/** The decoder over any page, opened with `/`. Its parts are only fetched when it is first wanted. */
	let { canWrite }: { canWrite: boolean } = $props();
	let dialog: HTMLDialogElement;
	let Shown = $state<typeof Decoder | null>(null);
	/** Made anew at each opening, so that it begins empty. */
	let opened = $state(0);
	let typed = $state('');
	const caseId = $derived(/^\/cases\/([^/]+)\//.exec(page.url.pathname)?.[1] ?? null);
	const open = $derived(caseId && caseId !== 'new' ? caseId : null);
	const signed = $derived(Boolean(page.data.case?.signed));
	const number = $derived(page.data.case?.number ?? null);

	const load = async () => (Shown ??= (await import('$lib/ui/Decoder.svelte')).default);
	onMount(() => {
		// Fetched while nothing else is going on, so that it is there at the first key.
		const idle = window.requestIdleCallback ?? ((done: () => void) => setTimeout(done, 500));
		idle(() => void load());
	});

	export async function show() {
		typed = '';
		dialog.showModal();
		if (!Shown) await load();
		opened++;
		// The field must be there before the next key is.
		flushSync();
	}
	/** Keys that come before the field does are not lost. */
	function early(event: KeyboardEvent) {
		if ((event.target as HTMLElement).tagName === 'INPUT' || event.ctrlKey || event.metaKey || event.altKey)
			return;
		if (event.key.length === 1) typed += event.key;
		else if (event.key === 'Backspace') typed = typed.slice(0, -1);
		else return;
		event.preventDefault();
	}
	useKeys({ '/': () => void show() });

	function follow(href: string) {
		dialog.close();
		// A code opened from a case is shown in the words for its vehicle, and can be added to it.
		const ofCase = open && href.startsWith('/codes/') ? `${href.includes('?') ? '&' : '?'}case=${open}` : '';
		void goto(href + ofCase);
	}
	async function add(text: string) {
		const noted = await notedCode(text);
		if (!noted || !open) return;
		const sent = await sendEntry(open, 'codes-reported', noted);
		if (!sent) return;
		if (sent === 'stored') toast.success(`${text} is noted on ${number ?? 'the case'}.`);
		dialog.close();
		await refreshCase();
	}
</script>

<dialog bind:this={dialog} class="modal items-start pt-[8vh]" aria-label="Decoder" onkeydown={early}>
	<div
		class="modal-box flex max-h-[80vh] w-[46rem] max-w-[94vw] flex-col border border-ink bg-base-100 p-4 shadow-none"
	>
		{#if Shown && opened > 0}
			{#key opened}
				<Shown
					ask={askDecoder(open)}
					onopen={follow}
					onadd={open && canWrite && !signed ? add : null}
					addTo={number}
					start={typed}
				/>
			{/key}
		{/if}
	</div>
	<form method="dialog" class="modal-backdrop"><button aria-label="Close the decoder">Close</button></form>
</dialog>
