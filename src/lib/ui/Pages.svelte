<script lang="ts">
	/** Turns the pages of a list. */
	let { page, pages }: { page: number; pages: number } = $props();
</script>

{#if pages > 1}
	<nav aria-label="Pages" class="mt-5 flex items-center gap-4">
		{#if page > 1}<a class="act-quiet" href="?page={page - 1}">Before</a>{/if}
		<span class="num">{page} of {pages}</span>
		{#if page < pages}<a class="act-quiet" href="?page={page + 1}">After</a>{/if}
	</nav>
{/if}
