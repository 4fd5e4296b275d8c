<script lang="ts">
	import { enhance as plainly } from '$app/forms';
	import { accountForm } from '$lib/ui/accountForm';
	import Field from '$lib/ui/Field.svelte';
	import UnitFields from '$lib/ui/UnitFields.svelte';

	let { data, form: sent } = $props();
	// svelte-ignore state_referenced_locally
	const { form, errors, message, enhance, submitting } = accountForm(data.form, {
		dataType: 'json',
		draftKey: 'papers'
	});
	const names = new Intl.DisplayNames(['en'], { type: 'currency' });
</script>

<svelte:head><title>Papers, prices and units · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold">Papers, prices and units</h1>
<form method="POST" action="?/save" use:enhance class="mt-5 max-w-3xl">
	<div class="grid gap-4 sm:grid-cols-3">
		<Field label="Currency" errors={$errors.currency}>
			<select class="field" bind:value={$form.currency}>
				{#each data.currencies as code, nth (nth)}<option value={code}>{code}, {names.of(code)}</option
					>{/each}
			</select>
		</Field>
		<Field label="An hour of work, without tax" errors={$errors.rate}
			><input
				class="field num text-right"
				inputmode="decimal"
				maxlength="20"
				bind:value={$form.rate}
			/></Field
		>
		<Field label="Tax, %" errors={$errors.taxPercent}
			><input
				class="field num text-right"
				type="number"
				min="0"
				max="100"
				step="0.01"
				bind:value={$form.taxPercent}
			/></Field
		>
	</div>
	<div class="mt-6 grid gap-4 sm:grid-cols-2">
		<Field label="The shop’s name" errors={$errors.shopName}
			><input class="field" maxlength="80" bind:value={$form.shopName} /></Field
		>
		<Field label="Where it is and how it is reached" errors={$errors.shopAddress}
			><textarea
				class="field"
				rows="3"
				maxlength="300"
				placeholder="street, place, telephone"
				bind:value={$form.shopAddress}></textarea></Field
		>
	</div>
	<div class="mt-4">
		<Field label="At the foot of every paper" errors={$errors.paperFooter}
			><textarea
				class="field"
				rows="2"
				maxlength="300"
				placeholder="tax number, how to pay, opening hours"
				bind:value={$form.paperFooter}></textarea></Field
		>
	</div>
	<h2 class="mt-6 text-lg font-bold">Units</h2>
	<p class="text-ink-2">On papers, and before everybody who chose none of their own.</p>
	<UnitFields bind:choice={$form.units} name="shop" />
	<div class="mt-6 flex flex-wrap items-center gap-4">
		<button class="act" disabled={$submitting}>Save</button>
		{#if $message}<span role="status">{$message}</span>{/if}
	</div>
</form>

<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="mark">
	<h2 id="mark" class="text-lg font-bold">The shop’s mark</h2>
	<p class="text-ink-2">At the top of every paper, up to 48 mm wide and 16 mm high.</p>
	{#if data.hasLogo}<img
			class="mt-3 max-h-20 border border-rule bg-white p-2"
			src="/papers/logo"
			alt="The shop’s mark"
		/>{/if}
	<form
		method="POST"
		action="?/logo"
		enctype="multipart/form-data"
		use:plainly
		class="mt-3 flex flex-wrap items-end gap-4"
	>
		<label class="min-w-60"
			><span class="mb-1 block font-semibold">A picture: PNG, JPEG or WebP</span>
			<input class="file-input" type="file" name="logo" accept="image/png,image/jpeg,image/webp" /></label
		>
		<button class="act-quiet">Take it</button>
	</form>
	{#if data.hasLogo}<form method="POST" action="?/noLogo" use:plainly class="mt-3">
			<button class="act-quiet">Papers without a mark</button>
		</form>{/if}
	{#if sent && 'logoError' in sent}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
			{sent.logoError}
		</p>{/if}
</section>
