<script lang="ts">
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import DueField from '$lib/ui/DueField.svelte';
	import { outbox } from '$lib/away/outbox.svelte';
	import Field from '$lib/ui/Field.svelte';
	import Pick, { type Picked } from '$lib/ui/Pick.svelte';
	import { FAMILY_WORDS } from '$library/sensorFamilies';
	import { SENSOR_KINDS } from '$library/sensorKinds';
	import VinCamera from '../../../VinCamera.svelte';
	import VinSays from './VinSays.svelte';

	let { data } = $props();
	const { form, errors, message, enhance, submitting } = entryForm(() => data.form, {
		id: 'new-case',
		draftKey: 'new-case',
		waits: 'New case'
	});
	const isNew = $derived($form.vehicleId === '');
	let chosen = $state<Picked | null>(null);
	const here = $derived(
		[chosen, ...data.vehicles].find((one) => one !== null && one.id === $form.vehicleId) ?? null
	);
	const MOST_FOUND = 8;
	const plain = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
	/** Among those that came with the page, and where the server answers, among all. */
	async function findVehicle(text: string): Promise<Picked[]> {
		const near = data.vehicles.filter(({ name, detail }) => plain(name + detail).includes(plain(text)));
		const answer = outbox.away
			? null
			: await fetch(`/vehicles/find?${new URLSearchParams({ q: text })}`).catch(() => null);
		const all: Picked[] = answer?.ok ? await answer.json() : [];
		const known = new Set(near.map(({ id }) => id));
		return [...near, ...all.filter(({ id }) => !known.has(id))].slice(0, MOST_FOUND);
	}
	const isDescribed = $derived($form.typeId !== '');
	const isTrailer = $derived($form.template === 'trailer');
	const isSingleTrack = $derived($form.template === 'motorcycle');
	const byLamp = $derived($form.template === 'lamp-only');
	const KINDS = [
		['car', 'Car'],
		['van', 'Van'],
		['light-truck', 'Light truck'],
		['four-wheel-drive', 'Four-wheel drive'],
		['electric', 'Electric car'],
		['motorcycle', 'Motorcycle'],
		['trailer', 'Trailer'],
		['lamp-only', 'Older: tells by its lamp']
	] as const;
	const YES_NO = [
		['', 'not known'],
		['yes', 'yes'],
		['no', 'no']
	] as const;
</script>

{#snippet sensors(label: string, key: 'front' | 'rear')}
	<Field {label}>
		<select class="field" bind:value={$form[key]}>
			<option value="unknown">not known yet</option>
			{#each SENSOR_KINDS as family (family)}<option value={family}>{FAMILY_WORDS[family].name}</option
				>{/each}
		</select>
	</Field>
{/snippet}
{#snippet asked(label: string, key: 'stability' | 'parkBrake' | 'airBrakes')}
	<Field {label}>
		<select class="field" bind:value={$form[key]}>
			{#each YES_NO as [value, words] (value)}<option {value}>{words}</option>{/each}
		</select>
	</Field>
{/snippet}

<svelte:head><title>New case · Jaldi</title></svelte:head>
<form method="POST" use:enhance class="max-w-2xl space-y-5">
	<h1 class="text-2xl font-bold">A vehicle comes in</h1>
	{#if isNew}
		{#if data.vehicles.length > 0}
			<Pick
				label="Was it here before?"
				placeholder="name, plate or number"
				find={findVehicle}
				pick="It is this one"
				nothing="No vehicle of that kind was here."
				onpick={(one) => {
					chosen = one;
					$form.vehicleId = one.id;
				}}
			/>
		{/if}
	{:else}
		<p class="flex flex-wrap items-center gap-x-6 text-lg">
			<strong>{here?.name ?? 'The vehicle that was chosen'}</strong>
			{#if here?.detail}<span class="num">{here.detail}</span>{/if}
			<button type="button" class="act-quiet" onclick={() => ($form.vehicleId = '')}>Another vehicle</button>
		</p>
	{/if}
	{#if isNew}
		{#if !isDescribed}
			<fieldset>
				<legend class="mb-1 font-semibold">What is it most like?</legend>
				<div class="grid grid-cols-2 gap-2 sm:grid-cols-4">
					{#each KINDS as [value, words] (value)}
						<label
							class="flex min-h-14 cursor-pointer items-center justify-center rounded-md border px-2 text-center leading-tight has-focus-visible:outline-3 {$form.template ===
							value
								? 'border-ink bg-neutral font-semibold text-neutral-content'
								: 'border-ink-2'}"
						>
							<input class="sr-only" type="radio" name="template" {value} bind:group={$form.template} />
							{words}
						</label>
					{/each}
				</div>
				{#if $errors.template}<p role="alert" class="mt-1 font-semibold">{$errors.template[0]}</p>{/if}
			</fieldset>
		{/if}
		<div class="grid gap-5 sm:grid-cols-2">
			<Field label={isDescribed ? 'What do you call it?' : 'What is it, in words?'} errors={$errors.nickname}
				><input
					class="field"
					bind:value={$form.nickname}
					placeholder={isDescribed ? 'school minibus' : 'white saloon, 2011'}
				/></Field
			>
			<Field label="Plate" errors={$errors.plate}><input class="field num" bind:value={$form.plate} /></Field>
		</div>
		{#if !isDescribed}
			<details>
				<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
					>More that you know of it</summary
				>
				<p class="mb-3 text-ink-2">
					All of it can stay open. What is not known is taken as it usually is, marked so wherever it is
					shown, and can be put right at the vehicle.
				</p>
				<div class="grid gap-5 sm:grid-cols-2">
					{#if isTrailer}
						<Field label="Axles">
							<select class="field" bind:value={$form.axles}>
								<option value="">three</option><option value="1">one</option><option value="2">two</option>
							</select>
						</Field>
						{@render sensors('Its wheel speed sensors', 'front')}
					{:else}
						{#if !isSingleTrack}
							<Field label="Driven wheels">
								<select class="field" bind:value={$form.drive}>
									<option value="">not known</option><option value="front">front</option><option value="rear"
										>rear</option
									><option value="all">all</option>
								</select>
							</Field>
						{/if}
						{#if !byLamp && $form.template !== 'electric'}
							<Field label="Driven by">
								<select class="field" bind:value={$form.power}>
									<option value="">not known</option><option value="combustion">an engine alone</option
									><option value="hybrid">hybrid</option><option value="electric">electric</option>
								</select>
							</Field>
						{/if}
						{#if !byLamp}{@render asked('Stability control?', 'stability')}{/if}
						{#if !byLamp && !isSingleTrack}{@render asked('Electric parking brake?', 'parkBrake')}{/if}
						{@render sensors('Wheel speed sensors, front', 'front')}
						{@render sensors('Wheel speed sensors, rear', 'rear')}
					{/if}
					{#if isTrailer || $form.template === 'light-truck' || $form.template === 'lamp-only'}
						{@render asked('Air brakes?', 'airBrakes')}
					{/if}
					<Field label="Supply">
						<select class="field" bind:value={$form.volts}>
							<option value="">not known</option><option value="12">12 V</option><option value="24"
								>24 V</option
							>
						</select>
					</Field>
				</div>
			</details>
		{/if}
		<Field label="Number of the vehicle (VIN)" errors={$errors.vin}
			><input class="field num" bind:value={$form.vin} maxlength="40" /></Field
		>
		<VinCamera onvin={(vin) => ($form.vin = vin)} />
		{#if $form.vin !== ''}<VinSays vin={$form.vin} />{/if}
		<details open={isDescribed}>
			<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
				>It is of a type that is described already</summary
			>
			<Field label="Which type?" errors={$errors.typeId}>
				<select class="field" bind:value={$form.typeId}>
					<option value="">None of these</option>
					{#each data.types as type (type.id)}<option value={type.id}>{type.name}</option>{/each}
				</select>
			</Field>
		</details>
		<Field
			label="Interface address"
			hint="host:port on the shop’s network; stays empty where you read with another tool"
			errors={$errors.linkAddress}
		>
			<input class="field num" bind:value={$form.linkAddress} placeholder="192.168.4.1:13400" />
		</Field>
		<details>
			<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
				>It is a simulated vehicle</summary
			>
			<Field label="Control panel of the simulator" errors={$errors.standInAddress}>
				<input class="field num" bind:value={$form.standInAddress} placeholder="127.0.0.1:13480" />
			</Field>
		</details>
	{/if}
	<DueField
		bind:words={$form.promised}
		bind:due={$form.due}
		closesAtHour={data.closesAtHour}
		errors={$errors.promised}
	/>
	{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
	<div class="flex flex-wrap items-center gap-6">
		<button class="act" disabled={$submitting}>Open the case</button>
		{#if data.member?.role === 'lead'}<a class="underline underline-offset-4" href="/cases/bring"
				>Bring a case in from another shop</a
			>{:else}A lead brings in cases from other shops.{/if}
	</div>
</form>
