<script lang="ts">
	import { enhance } from '$app/forms';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import Sessions from '../Sessions.svelte';
	import WayIn from '../WayIn.svelte';
	import { ROLE_WORDS } from '../roles';

	let { data, form } = $props();
	const person = $derived(data.person);
</script>

<svelte:head><title>{person.name} · Jaldi</title></svelte:head>
<p><a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people">People</a></p>
<h1 class="text-2xl leading-tight font-bold">{person.name}</h1>
<p class="text-lg text-ink-2">
	{ROLE_WORDS[person.role].name}, <span class="num">{person.username}</span>{person.lastSeen
		? `, seen ${person.lastSeen}`
		: ''}
</p>
{#if person.shutOut !== null}<p class="mt-3 border-l-4 border-ink pl-3 font-semibold">
		Shut out: {person.shutOut}
	</p>{/if}
{#if form && 'error' in form && form.error}<p
		role="alert"
		class="mt-3 border-l-4 border-ink pl-3 font-semibold"
	>
		{form.error}
	</p>{/if}
{#if form && 'code' in form && form.code}<WayIn
		name={person.name}
		code={form.code}
		href={form.href ?? ''}
	/>{/if}

<div class="mt-5 grid max-w-5xl gap-x-12 gap-y-8 lg:grid-cols-2">
	<section aria-labelledby="name">
		<h2 id="name" class="text-lg font-bold">Name</h2>
		<p class="text-ink-2">What is on threads already keeps the name it was written with.</p>
		<form method="POST" action="?/rename" use:enhance class="mt-2 flex flex-wrap items-end gap-3">
			<label class="min-w-52 grow"
				><span class="sr-only">Name</span><input
					class="field"
					name="name"
					value={person.name}
					maxlength="80"
				/></label
			>
			<button class="act-quiet">Rename</button>
		</form>
	</section>
	<section aria-labelledby="role">
		<h2 id="role" class="text-lg font-bold">Role</h2>
		<form method="POST" action="?/role" use:enhance class="mt-1">
			{#each Object.entries(ROLE_WORDS) as [id, { name, may }] (id)}
				<label class="flex min-h-11 items-center gap-3">
					<input type="radio" name="role" value={id} checked={id === person.role} class="radio" />
					<span><strong>{name}</strong> {may}</span>
				</label>
			{/each}
			<button class="act-quiet mt-2">Change the role</button>
			<span class="ml-3 text-ink-2">They sign in anew.</span>
		</form>
	</section>
	{#if !data.isMe}
		<section aria-labelledby="way">
			<h2 id="way" class="text-lg font-bold">A new way in</h2>
			<p class="text-ink-2">
				For a password that is forgotten or known to others. The old one works no more.
			</p>
			{#if person.shutOut === null}
				<form method="POST" action="?/reset" use:enhance class="mt-2">
					<AskOnce
						label="Open a new way in"
						ask="{person.name} is signed out everywhere, and comes in with a code."
						yes="Open it"
					/>
				</form>
			{:else}<p class="mt-2">Let them in first.</p>{/if}
			{#if person.secondFactor}
				<form method="POST" action="?/factorOff" use:enhance class="mt-3">
					<AskOnce
						label="Take the second factor off"
						ask="For a phone that is lost: until {person.name} sets another up, the password alone opens."
						yes="Take it off"
					/>
				</form>
			{/if}
		</section>
		<section aria-labelledby="out">
			<h2 id="out" class="text-lg font-bold">{person.shutOut === null ? 'Shut out' : 'Let in again'}</h2>
			<p class="text-ink-2">What they wrote stays as it is.</p>
			{#if person.shutOut === null}
				<form method="POST" action="?/shutOut" use:enhance class="mt-2 flex flex-wrap items-end gap-3">
					<label class="min-w-52 grow"
						><span class="mb-1 block font-semibold">Why?</span><input
							class="field"
							name="why"
							maxlength="300"
						/></label
					>
					<button class="act-quiet">Shut out</button>
				</form>
			{:else}
				<form method="POST" action="?/letIn" use:enhance class="mt-2">
					<button class="act-quiet">Let in again</button>
				</form>
			{/if}
		</section>
	{/if}
	<Sessions sessions={data.sessions} />
</div>
