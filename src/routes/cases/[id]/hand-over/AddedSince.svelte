<script lang="ts">
	/** What came while a lead was reading: it is looked at before anything is closed. */
	let {
		added,
		onlooked
	}: { added: { id: string; title: string; detail: string; author: string }[]; onlooked: () => void } =
		$props();
</script>

<div role="alert" class="mt-3 border-l-4 border-ink pl-4">
	<p class="text-lg font-semibold">
		{added.length === 1 ? 'One entry was' : `${added.length} entries were`} added since you opened this page:
	</p>
	<ul class="list-disc pl-5">
		{#each added as line (line.id)}<li>{line.title}: {line.detail} ({line.author})</li>{/each}
	</ul>
	<button type="button" class="act-quiet mt-2" onclick={onlooked}>I have looked at it</button>
</div>
