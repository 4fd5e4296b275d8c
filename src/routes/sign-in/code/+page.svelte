<script lang="ts">
	import { enhance } from '$app/forms';
	import Wordmark from '$lib/ui/Wordmark.svelte';

	let { data, form } = $props();
</script>

<svelte:head><title>Second factor · Jaldi</title></svelte:head>
<main class="grid min-h-screen grid-rows-[auto_1fr] px-8 py-5">
	<Wordmark />
	<div class="mx-auto w-full max-w-md self-center pt-8 pb-32">
		<h1 class="text-2xl leading-tight font-bold">Six digits from your phone</h1>
		<p class="mt-2 text-ink-2">Or one of the codes that you wrote down for the day the phone is lost.</p>
		<form method="POST" action="?back={encodeURIComponent(data.back)}" use:enhance class="mt-8 space-y-5">
			<label class="block">
				<span class="mb-1 block font-semibold">Code</span>
				<!-- svelte-ignore a11y_autofocus -->
				<input class="field num text-xl" name="code" autocomplete="one-time-code" autofocus />
			</label>
			{#if form?.error}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
			<button class="act w-full">Sign in</button>
			<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/sign-in">Begin again</a
			>
		</form>
	</div>
</main>
