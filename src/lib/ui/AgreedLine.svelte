<script lang="ts">
	/** Whether the customer has agreed to what it costs, where somebody has said that; said before a part is fitted. */
	let { words, href }: { words: string | null; href: string } = $props();
</script>

{#if words}<p class="my-3 border-l-4 border-ink pl-3">
		{words} <a class="ml-2 inline-flex min-h-11 items-center underline underline-offset-4" {href}>Estimate</a>
	</p>{/if}
