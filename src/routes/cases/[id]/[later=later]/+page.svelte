<script lang="ts">
	import { page } from '$app/state';

	const WILL: Record<string, { name: string; does: string; now: string }> = {
		reason: {
			name: 'Reason',
			does: 'show which links of the signal path are proven and which test comes next',
			now: 'Halve the path yourself: sensor side against module side.'
		}
	};
	const station = $derived(WILL[page.params.later ?? ''] ?? WILL.reason!);
</script>

<svelte:head><title>{station.name} · Jaldi</title></svelte:head>
<section class="max-w-xl py-6">
	<h1 class="text-2xl font-bold">{station.name} comes later</h1>
	<p class="mt-3 text-lg">This version does not have it. It will {station.does}.</p>
	<p class="mt-3 text-lg">Until then: {station.now}</p>
</section>
