<script lang="ts">
	import { enhance } from '$app/forms';

	let { form } = $props();
	let busy = $state(false);
</script>

<svelte:head><title>Bring a case in · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold">Bring a case in from another shop</h1>
<p class="mt-1 max-w-2xl text-lg text-ink-2">
	A bundle is a ZIP with the whole thread. Every hash is checked first; one that was changed is refused, and
	says where. Nothing of it is taken in by halves.
</p>
<form
	method="POST"
	enctype="multipart/form-data"
	class="mt-5 max-w-2xl space-y-4"
	use:enhance={() => {
		busy = true;
		return async ({ update }) => {
			await update({ reset: false });
			busy = false;
		};
	}}
>
	<label class="block"
		><span class="mb-1 block font-semibold">Bundle</span>
		<input class="field h-auto! py-2" type="file" name="bundle" accept=".zip,application/zip" required />
	</label>
	{#if form?.error}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{form.error}</p>{/if}
	<button class="act" disabled={busy}>{busy ? 'Being checked …' : 'Check it and take it in'}</button>
</form>
