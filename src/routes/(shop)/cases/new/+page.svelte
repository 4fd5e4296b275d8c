<script lang="ts">
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';

	let { data } = $props();
	const { form, errors, message, enhance, submitting } = entryForm(() => data.form, {
		id: 'new-case',
		draftKey: 'new-case'
	});
	const isNew = $derived($form.vehicleId === '');
</script>

<svelte:head><title>New case · Jaldi</title></svelte:head>
<form method="POST" use:enhance class="max-w-2xl space-y-5">
	<h1 class="text-2xl font-bold">A vehicle comes in</h1>
	<Field label="Which vehicle?">
		<select class="field" bind:value={$form.vehicleId}>
			<option value="">One that was never here</option>
			{#each data.vehicles as vehicle (vehicle.id)}<option value={vehicle.id}
					>{vehicle.name}{vehicle.plate ? `, ${vehicle.plate}` : ''}</option
				>{/each}
		</select>
	</Field>
	{#if isNew}
		<Field label="What is it?" errors={$errors.typeId}>
			<select class="field" bind:value={$form.typeId}>
				<option value="" disabled>Choose its maker and model</option>
				{#each data.types as type (type.id)}<option value={type.id}>{type.name}</option>{/each}
			</select>
		</Field>
		<div class="grid gap-5 sm:grid-cols-2">
			<Field label="What do you call it?" errors={$errors.nickname}
				><input class="field" bind:value={$form.nickname} placeholder="school minibus" /></Field
			>
			<Field label="Plate" errors={$errors.plate}><input class="field num" bind:value={$form.plate} /></Field>
		</div>
		<Field
			label="Where its interface answers"
			hint="host:port on the shop’s network; can stay empty"
			errors={$errors.linkAddress}
		>
			<input class="field num" bind:value={$form.linkAddress} placeholder="192.168.4.1:13400" />
		</Field>
		<details>
			<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
				>It is a simulated vehicle</summary
			>
			<Field label="Control panel of the stand-in" errors={$errors.standInAddress}>
				<input class="field num" bind:value={$form.standInAddress} placeholder="127.0.0.1:13480" />
			</Field>
		</details>
	{/if}
	<Field label="When is it wanted back?" errors={$errors.wanted}
		><input class="field" bind:value={$form.wanted} placeholder="today 15:30" /></Field
	>
	{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
	<div class="flex flex-wrap items-center gap-6">
		<button class="act" disabled={$submitting}>Open the case</button>
		<a class="underline underline-offset-4" href="/cases/bring">Bring a case in from another shop</a>
	</div>
</form>
