<script lang="ts">
	import { enhance } from '$app/forms';
	import { onMount } from 'svelte';
	import Wordmark from '$lib/ui/Wordmark.svelte';
	import { forgetPages } from '$lib/away/keepPages';
	import { tellLocked } from '../lockWhenLeft';

	let { data, form } = $props();
	onMount(() => {
		tellLocked();
		// What may not be seen is not kept either.
		void forgetPages();
	});
</script>

<svelte:head><title>Locked · Jaldi</title></svelte:head>
<main class="grid min-h-screen grid-rows-[auto_1fr] px-8 py-5">
	<Wordmark />
	<div class="mx-auto w-full max-w-md self-center pt-8 pb-32">
		<h1 class="text-2xl leading-tight font-bold">Locked for {data.name}</h1>
		<p class="mt-2 text-ink-2">
			{data.digits ? 'Your six digits open it again, or your password.' : 'Your password opens it again.'} Nothing
			that was typed here is lost.
		</p>
		<form
			method="POST"
			action="?/open&back={encodeURIComponent(data.back)}"
			use:enhance
			class="mt-6 space-y-5"
		>
			<label class="block">
				<span class="mb-1 block font-semibold">{data.digits ? 'Six digits' : 'Password'}</span>
				<!-- svelte-ignore a11y_autofocus -->
				<input
					class="field text-xl {data.digits ? 'num' : ''}"
					type="password"
					name="secret"
					inputmode={data.digits ? 'numeric' : undefined}
					autocomplete={data.digits ? 'off' : 'current-password'}
					autofocus
				/>
			</label>
			{#if form?.error}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
			<button class="act w-full">Open</button>
		</form>
		<form method="POST" action="/sign-in?/out" class="mt-4">
			<button class="act-quiet w-full">Somebody else: sign in</button>
		</form>
	</div>
</main>
