<script lang="ts">
	import type { PhotoBox } from './photos.svelte';

	/** Photos that go with what is being written down: taken with the tablet, or chosen. */
	let { photos, alt }: { photos: PhotoBox; alt: string } = $props();
</script>

<label class="act-quiet">
	{photos.sending > 0 ? 'Sending …' : 'Add photos'}
	<input
		type="file"
		class="sr-only"
		accept="image/*"
		capture="environment"
		multiple
		onchange={(event) => {
			const { files } = event.currentTarget;
			if (files) void photos.add(Array.from(files));
			event.currentTarget.value = '';
		}}
	/>
</label>
{#if photos.trouble}<p class="w-full font-semibold" role="alert">{photos.trouble}</p>{/if}
{#if photos.kept.length > 0}
	<ul class="flex w-full flex-wrap gap-2">
		{#each photos.kept as { id } (id)}
			<li>
				<img class="h-24 w-32 object-cover" src={photos.addressOf(id)} {alt} />
				<button type="button" class="min-h-11 underline underline-offset-4" onclick={() => photos.drop(id)}
					>leave out</button
				>
			</li>
		{/each}
	</ul>
{/if}
