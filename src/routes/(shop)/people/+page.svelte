<script lang="ts">
	import { enhance as send } from '$app/forms';
	import { accountForm } from '$lib/ui/accountForm';
	import WayIn from './WayIn.svelte';
	import { ROLE_WORDS } from './roles';

	let { data, form: told } = $props();
	// svelte-ignore state_referenced_locally
	const { form, errors, message, enhance, submitting } = accountForm(data.form);
	const here = $derived(data.people.filter(({ shutOut }) => shutOut === null));
	const out = $derived(data.people.filter(({ shutOut }) => shutOut !== null));
	const stateOf = (person: (typeof data.people)[number]): string =>
		person.invited
			? 'invited, has not come in yet'
			: person.lastSeen
				? `seen ${person.lastSeen}`
				: 'not signed in';
</script>

<svelte:head><title>People · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{here.length === 1 ? 'One person works here' : `${here.length} people work here`}
</h1>
<p class="mt-2 flex flex-wrap gap-x-6">
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/papers"
		>Papers, prices and units</a
	>
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people/programs"
		>Programs and their tokens</a
	>
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people/log"
		>What was changed, and by whom</a
	>
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/health"
		>How the server is</a
	>
</p>
<ul class="mt-3 max-w-4xl border-t-2 border-ink">
	{#each here as person (person.id)}
		<li class="hair">
			<a
				class="grid min-h-14 grid-cols-1 items-center gap-x-6 py-2 sm:grid-cols-[1fr_1fr_1.2fr]"
				href="/people/{person.id}"
			>
				<span class="text-lg font-semibold underline underline-offset-4"
					>{person.name}{person.id === data.me ? ' (you)' : ''}</span
				>
				<span>{ROLE_WORDS[person.role].name}, <span class="num">{person.username}</span></span>
				<span class="text-ink-2">{stateOf(person)}{person.secondFactor ? ', second factor' : ''}</span>
			</a>
		</li>
	{/each}
</ul>
{#if out.length > 0}
	<h2 class="mt-6 text-lg font-bold">Shut out</h2>
	<ul class="mt-1 max-w-4xl border-t border-ink">
		{#each out as person (person.id)}
			<li class="hair">
				<a class="flex min-h-14 flex-wrap items-center gap-x-4 py-2" href="/people/{person.id}">
					<span class="font-semibold underline underline-offset-4">{person.name}</span>
					<span class="text-ink-2">{person.shutOut}</span>
				</a>
			</li>
		{/each}
	</ul>
{/if}

<section class="mt-8 max-w-xl" aria-labelledby="invite">
	<h2 id="invite" class="text-lg font-bold">Bring somebody in</h2>
	<p class="mt-1 text-ink-2">They get a code, and choose their own password with it. Nobody else knows it.</p>
	{#if $message}<WayIn {...$message} />{/if}
	<form method="POST" action="?/invite" use:enhance class="mt-4 space-y-4">
		<label class="block"
			><span class="mb-1 block font-semibold">Name</span>
			<input class="field" name="name" bind:value={$form.name} autocomplete="off" />
			{#if $errors.name}<span role="alert" class="mt-1 block font-semibold">{$errors.name[0]}</span>
			{:else}<span class="mt-1 block text-sm text-ink-2">As it stands on every thread.</span>{/if}
		</label>
		<label class="block"
			><span class="mb-1 block font-semibold">User name</span>
			<input
				class="field"
				name="username"
				bind:value={$form.username}
				autocomplete="off"
				autocapitalize="none"
			/>
			{#if $errors.username}<span role="alert" class="mt-1 block font-semibold">{$errors.username[0]}</span>
			{:else}<span class="mt-1 block text-sm text-ink-2">Small letters, digits, dots or dashes.</span>{/if}
		</label>
		<fieldset>
			<legend class="mb-1 font-semibold">Role</legend>
			{#each Object.entries(ROLE_WORDS) as [id, { name, may }] (id)}
				<label class="flex min-h-11 items-center gap-3">
					<input type="radio" name="role" value={id} bind:group={$form.role} class="radio" />
					<span><strong>{name}</strong> {may}</span>
				</label>
			{/each}
		</fieldset>
		<button class="act" disabled={$submitting}>Bring them in</button>
	</form>
</section>

<section class="mt-10 max-w-xl" aria-labelledby="hours">
	<h2 id="hours" class="text-lg font-bold">The day’s work</h2>
	<form
		method="POST"
		action="?/hours"
		use:send={() =>
			({ update }) =>
				update({ reset: false })}
		class="mt-2"
	>
		<p class="flex flex-wrap items-center gap-3">
			<label class="flex items-center gap-3"
				>From <input class="field num w-36" type="time" name="opens" value={data.opens} required /></label
			>
			<label class="flex items-center gap-3"
				>to <input class="field num w-36" type="time" name="closes" value={data.closes} required /></label
			>
		</p>
		<p class="mt-1 text-ink-2">
			What can be finished today goes by it, and “Friday” is when Friday’s work ends.
		</p>
		{#if told && 'hours' in told}<p role="alert" class="mt-1 font-semibold">{told.hours}</p>
		{:else if told && 'hoursSaved' in told}<p role="status" class="mt-1 font-semibold">Saved.</p>{/if}
		<button class="act-quiet mt-2">Save the hours</button>
	</form>
</section>

<section class="mt-10 max-w-xl" aria-labelledby="idle">
	<h2 id="idle" class="text-lg font-bold">Screens that are left</h2>
	<form
		method="POST"
		action="?/idle"
		use:send={() =>
			({ update }) =>
				update({ reset: false })}
		class="mt-2"
	>
		<label class="flex flex-wrap items-center gap-3"
			>Lock by themselves after <input
				class="field num w-24"
				name="minutes"
				inputmode="numeric"
				value={data.lockAfterMinutes}
			/> minutes; 0 is never.</label
		>
		{#if told && 'idle' in told}<p role="alert" class="mt-1 font-semibold">{told.idle}</p>
		{:else if told && 'idleSaved' in told}<p role="status" class="mt-1 font-semibold">Saved.</p>{/if}
		<button class="act-quiet mt-2">Save</button>
	</form>
</section>
