<script lang="ts">
	import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Jaldi</title></svelte:head>
<main class="mx-auto max-w-2xl px-8 py-20">
	<h1 class="text-2xl font-bold">{page.error?.message ?? 'Something went wrong.'}</h1>
	<p class="mt-3">Nothing that was saved before is lost.</p>
	{#if page.error?.requestId}<p class="num mt-3 text-sm text-ink-2">
			For the log: {page.error.requestId}
		</p>{/if}
	<a class="act mt-6" href="/">Go to the floor</a>
</main>
