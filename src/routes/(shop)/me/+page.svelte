<script lang="ts">
	import { enhance } from '$app/forms';
	import Sessions from '../people/Sessions.svelte';
	import { ROLE_WORDS } from '../people/roles';
	import OwnUnits from './OwnUnits.svelte';
	import SecondFactor from './SecondFactor.svelte';

	let { data, form } = $props();
	const told = (about: string) => (form?.about === about ? form : null);
	const errorOf = (about: string) => {
		const one = told(about);
		return one && 'error' in one ? one.error : undefined;
	};
	const doneOf = (about: string) => {
		const one = told(about);
		return one && 'done' in one ? one.done : undefined;
	};
</script>

{#snippet said(about: string)}
	{#if errorOf(about)}<p role="alert" class="mt-2 border-l-4 border-ink pl-3 font-semibold">
			{errorOf(about)}
		</p>
	{:else if doneOf(about)}<p role="status" class="mt-2 font-semibold">{doneOf(about)}</p>{/if}
{/snippet}

<svelte:head><title>{data.member?.name} · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">{data.member?.name}</h1>
{#if data.member}<p class="text-lg text-ink-2">
		{ROLE_WORDS[data.member.role].name}, <span class="num">{data.member.username}</span>
	</p>{/if}
{#if data.member?.role === 'lead'}<p class="mt-1">
		<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people"
			>The people of this shop</a
		>
	</p>{/if}

<div class="mt-5 grid max-w-5xl gap-x-12 gap-y-10 lg:grid-cols-2">
	<section aria-labelledby="password">
		<h2 id="password" class="text-lg font-bold">Password</h2>
		{@render said('password')}
		<form method="POST" action="?/password" use:enhance class="mt-2 space-y-4">
			<label class="block"
				><span class="mb-1 block font-semibold">The one you have</span><input
					class="field"
					type="password"
					name="now"
					autocomplete="current-password"
				/></label
			>
			<label class="block"
				><span class="mb-1 block font-semibold">The new one</span><input
					class="field"
					type="password"
					name="next"
					autocomplete="new-password"
				/></label
			>
			<button class="act-quiet">Change it</button>
		</form>
	</section>
	<section aria-labelledby="digits">
		<h2 id="digits" class="text-lg font-bold">Six digits for a shared tablet</h2>
		<p class="mt-1 text-ink-2">
			Lock the screen when you walk away; the digits open it again, on the same day and at the same screen.
			They never sign you in. {data.hasDigits
				? 'You have set some.'
				: 'You have none: your password opens it.'}
		</p>
		{@render said('digits')}
		<form method="POST" action="?/digits" use:enhance class="mt-2 flex flex-wrap items-end gap-3">
			<label
				><span class="mb-1 block font-semibold">Digits</span><input
					class="field num w-40"
					type="password"
					name="digits"
					inputmode="numeric"
					maxlength="6"
					autocomplete="off"
				/></label
			>
			<button class="act-quiet">{data.hasDigits ? 'Change them, or none' : 'Set them'}</button>
		</form>
		<form method="POST" action="/locked?/lock&back=/" class="mt-3">
			<button class="act-quiet">Lock this screen now</button>
		</form>
	</section>
	<SecondFactor on={data.secondFactor} made={form && 'drawn' in form ? form : null}>
		{@render said('factor')}
	</SecondFactor>
	<section aria-labelledby="keys">
		<h2 id="keys" class="text-lg font-bold">Single keys</h2>
		<p class="mt-1 text-ink-2">
			One key does something on most pages; <kbd class="key">?</kbd> lists them. Whoever speaks to the machine,
			or leans on the keyboard, may want them off, on this device.
		</p>
		<form method="POST" action="/preferences?/keys" class="mt-2">
			<input type="hidden" name="back" value="/me" />
			<input type="hidden" name="keys" value={data.singleKeys ? 'off' : 'on'} />
			<button class="act-quiet">{data.singleKeys ? 'Switch them off' : 'Switch them on again'}</button>
		</form>
	</section>
	<OwnUnits own={data.ownUnits}>{@render said('units')}</OwnUnits>
	<Sessions sessions={data.sessions} />
</div>
