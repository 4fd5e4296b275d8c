<script lang="ts">
	import { goto, replaceState } from '$app/navigation';
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import Decoder from '$lib/ui/Decoder.svelte';
	import { askDecoder } from '../../decoderClient';

	const start = untrack(() => page.url.searchParams.get('q') ?? '');
	const asking = askDecoder(null);
	/** What was asked stays in the address, so that back and reload bring it again. */
	const ask = (text: string) => {
		if (text !== (page.url.searchParams.get('q') ?? ''))
			replaceState(text ? `?q=${encodeURIComponent(text)}` : '/decode', {});
		return asking(text);
	};
</script>

<svelte:head><title>Decode · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">Decode a code, in any spelling</h1>
<p class="mt-1 mb-5 text-lg text-ink-2">
	A code or several, bytes, a module’s whole answer in hex, a lamp code; a case by its number, its plate or
	its vehicle; or words: “steering angle”, “splice”. <span class="of-keys"
		>From any page with <kbd class="key">/</kbd></span
	>
</p>
<Decoder {ask} {start} onopen={(href) => void goto(href)} />
