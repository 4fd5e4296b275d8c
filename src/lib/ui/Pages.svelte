<script lang="ts">
	import { page as shown } from '$app/state';
	import { askedWith } from './askedWith';

	/** Turns the pages of a list; what else is asked of it stays. */
	let { page, pages }: { page: number; pages: number } = $props();
	const at = (wanted: number) => askedWith(shown.url.search, { page: String(wanted) });
</script>

{#if pages > 1}
	<nav aria-label="Pages" class="mt-5 flex items-center gap-4">
		{#if page > 1}<a class="act-quiet" href={at(page - 1)}>Before</a>{/if}
		<span class="num">{page} of {pages}</span>
		{#if page < pages}<a class="act-quiet" href={at(page + 1)}>After</a>{/if}
	</nav>
{/if}
