<script lang="ts">
	import { enhance } from '$app/forms';
	import type { Snippet } from 'svelte';

	/** A second factor: six digits that a phone makes (RFC 6238). */
	interface Props {
		on: boolean;
		/** What the phone is to read; null = nothing is being set up. */
		made: { secret?: string; drawn?: string; backupCodes?: string[] } | null;
		children: Snippet;
	}
	let { on, made, children }: Props = $props();
</script>

<section aria-labelledby="factor" class="lg:col-span-2">
	<h2 id="factor" class="text-lg font-bold">Second factor</h2>
	<p class="mt-1 max-w-3xl text-ink-2">
		{on
			? 'It is set up: besides your password, six digits from your phone.'
			: 'Six digits from your phone besides your password, by any app for such codes. A lead should have it: a lead’s account opens everything.'}
	</p>
	{@render children()}
	{#if made?.drawn && !on}
		<div class="mt-3 flex flex-wrap items-start gap-x-8 gap-y-4">
			<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by the server from the address it made -->
			<div class="w-52 bg-white p-1" role="img" aria-label="To be read by the phone">{@html made.drawn}</div>
			<div class="max-w-md">
				<p>
					Read it with the app, or type <span class="num [overflow-wrap:anywhere]"
						>{made.secret?.match(/.{1,4}/g)?.join(' ')}</span
					>
				</p>
				<p class="mt-3 font-semibold">
					For the day the phone is lost: each of these opens once. Write them down.
				</p>
				<ul class="num mt-1 grid grid-cols-2 gap-x-6">
					{#each made.backupCodes ?? [] as code, nth (nth)}<li>{code}</li>{/each}
				</ul>
				<form method="POST" action="?/confirm" use:enhance class="mt-4 flex flex-wrap items-end gap-3">
					<label
						><span class="mb-1 block font-semibold">The six digits it shows now</span><input
							class="field num w-40"
							name="code"
							inputmode="numeric"
							autocomplete="one-time-code"
						/></label
					>
					<button class="act">Set it up</button>
				</form>
			</div>
		</div>
	{:else}
		<form
			method="POST"
			action={on ? '?/factorOff' : '?/factor'}
			use:enhance
			class="mt-2 flex flex-wrap items-end gap-3"
		>
			<label
				><span class="mb-1 block font-semibold">Your password</span><input
					class="field w-64"
					type="password"
					name="password"
					autocomplete="current-password"
				/></label
			>
			<button class="act-quiet">{on ? 'Take it off' : 'Set up a second factor'}</button>
		</form>
	{/if}
</section>
