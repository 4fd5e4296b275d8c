<script lang="ts">
	import { goto, invalidate } from '$app/navigation';
	import { page } from '$app/state';
	import { toast } from 'svelte-sonner';
	import type Decoder from '$lib/ui/Decoder.svelte';
	import { useKeys } from '$lib/ui/keys';
	import { askDecoder, notedCode, sendEntry } from './decoderClient';

	/** The decoder over any page, opened with `/`. Its parts are only fetched when it is first wanted. */
	let { canWrite }: { canWrite: boolean } = $props();
	let dialog: HTMLDialogElement;
	let Shown = $state<typeof Decoder | null>(null);
	/** Made anew at each opening, so that it begins empty. */
	let opened = $state(0);
	const caseId = $derived(/^\/cases\/([^/]+)\//.exec(page.url.pathname)?.[1] ?? null);
	const open = $derived(caseId && caseId !== 'new' ? caseId : null);
	const signed = $derived(Boolean(page.data.case?.signed));
	const number = $derived(page.data.case?.number ?? null);

	export async function show() {
		Shown ??= (await import('$lib/ui/Decoder.svelte')).default;
		opened++;
		dialog.showModal();
	}
	useKeys({ '/': () => void show() });

	function openCode(slug: string) {
		dialog.close();
		const join = slug.includes('?') ? '&' : '?';
		void goto(`/codes/${slug}${open ? `${join}case=${open}` : ''}`);
	}
	async function add(text: string) {
		const noted = await notedCode(text);
		if (!noted || !open) return;
		if (!(await sendEntry(open, 'codes-reported', noted))) return;
		toast.success(`${text} is noted on ${number ?? 'the case'}.`);
		dialog.close();
		await invalidate('jaldi:case');
	}
</script>

<dialog bind:this={dialog} class="modal items-start pt-[8vh]" aria-label="Decoder">
	<div
		class="modal-box flex max-h-[80vh] w-[46rem] max-w-[94vw] flex-col border border-ink bg-base-100 p-4 shadow-none"
	>
		{#if Shown}
			{#key opened}
				<Shown
					ask={askDecoder(open)}
					onopen={openCode}
					onadd={open && canWrite && !signed ? add : null}
					addTo={number}
				/>
			{/key}
		{/if}
	</div>
	<form method="dialog" class="modal-backdrop"><button aria-label="Close the decoder">Close</button></form>
</dialog>
