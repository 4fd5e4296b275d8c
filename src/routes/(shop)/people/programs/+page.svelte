<script lang="ts">
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import AskOnce from '$lib/ui/AskOnce.svelte';

	let { data, form } = $props();
	const SCOPE_WORDS = {
		read: 'reads cases, their files and papers',
		add: 'adds evidence to cases that are open'
	} as const;
</script>

<svelte:head><title>Programs · Jaldi</title></svelte:head>
<p><a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/people">People</a></p>
<h1 class="text-2xl leading-tight font-bold">
	{data.tokens.length === 0
		? 'No other program comes in'
		: data.tokens.length === 1
			? 'One program comes in by a token'
			: `${data.tokens.length} programs come in by tokens`}
</h1>
<p class="mt-1 max-w-3xl text-lg text-ink-2">
	A tyre machine, a test lane, the office’s own program: each has a token of its own, and what it adds carries
	its name. What there is to ask for is described at
	<a class="num underline underline-offset-4" href="/api/openapi.json">/api/openapi.json</a>.
</p>
{#if form && 'token' in form && form.token}
	<div role="status" class="mt-4 max-w-3xl border-l-4 border-ink pl-4">
		<p class="font-semibold">The token of {form.made}. It is shown this once and kept nowhere.</p>
		<p class="num mt-1 text-lg font-bold [overflow-wrap:anywhere]">{form.token}</p>
		<p class="mt-2 text-ink-2">
			Every request carries it as a header: <span class="num [overflow-wrap:anywhere]"
				>Authorization: Bearer {form.token.slice(0, 10)}…</span
			>
			{#if page.url.protocol !== 'https:'}Without TLS anybody on the network can read it.{/if}
		</p>
	</div>
{/if}
<ul class="mt-4 max-w-4xl border-t-2 border-ink">
	{#each data.tokens as token (token.id)}
		<li class="hair flex min-h-14 flex-wrap items-center justify-between gap-x-6 gap-y-2 py-2">
			<span>
				<strong class="text-lg">{token.name}</strong>
				{token.scopes.map((scope) => SCOPE_WORDS[scope]).join('; ')}<br />
				<span class="text-ink-2"
					>made by {token.madeBy}, {token.madeAt}; {token.lastUsedAt
						? `used ${token.lastUsedAt}`
						: 'never used'}</span
				>
			</span>
			<form method="POST" action="?/revoke" use:enhance>
				<input type="hidden" name="id" value={token.id} />
				<AskOnce label="Take it back" ask="{token.name} is let in no more, from now on." yes="Take it back" />
			</form>
		</li>
	{/each}
</ul>
<section class="mt-8 max-w-xl" aria-labelledby="new">
	<h2 id="new" class="text-lg font-bold">A token for another program</h2>
	<form method="POST" action="?/make" use:enhance class="mt-3 space-y-4">
		<label class="block"
			><span class="mb-1 block font-semibold">Which program?</span><input
				class="field"
				name="name"
				maxlength="60"
				value={form && 'name' in form ? form.name : ''}
			/></label
		>
		<fieldset>
			<legend class="mb-1 font-semibold">It</legend>
			{#each Object.entries(SCOPE_WORDS) as [id, words] (id)}
				<label class="flex min-h-11 items-center gap-3">
					<input type="checkbox" name="scopes" value={id} checked={id === 'read'} class="checkbox" />{words}
				</label>
			{/each}
		</fieldset>
		{#if form && 'error' in form && form.error}<p
				role="alert"
				class="border-l-4 border-ink pl-3 font-semibold"
			>
				{form.error}
			</p>{/if}
		<button class="act">Make the token</button>
	</form>
</section>
