<script lang="ts">
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import { outbox } from '$lib/away/outbox.svelte';

	/** Said on every page while the server is out of reach, and while something waits on this device. */
	let { signedIn }: { signedIn: boolean } = $props();
	/** When the server drew this page. */
	let made = $state<string | null>(null);
	onMount(() => (made = document.documentElement.dataset.made || null));
	const madeAt = $derived(
		made && new Date(made).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' })
	);
	const mine = $derived(outbox.mine.length);
	const refused = $derived(outbox.waiting.filter((one) => one.refused !== undefined).length);
	const waits = (count: number) => (count === 1 ? 'One thing waits' : `${count} things wait`);
	/** Of others who used this device, by name. */
	const theirs = $derived(
		outbox.waiting.filter((one) => one.refused === undefined && !outbox.mine.includes(one))
	);
	const others = $derived(
		[...new Set(theirs.map(({ byName }) => byName))].map((name) => ({
			name,
			count: theirs.filter(({ byName }) => byName === name).length
		}))
	);
	const shown = $derived(outbox.away || mine > 0 || refused > 0 || (!signedIn && others.length > 0));
</script>

{#if shown}
	<div
		class="no-print flex flex-wrap items-center gap-x-6 gap-y-1 bg-ink px-6 py-2 text-base-200"
		role="status"
		aria-label="Without the server"
	>
		{#if outbox.away}<p>
				<strong>The server is out of reach.</strong>
				{#if signedIn}<span class="max-sm:hidden"
						>What you record is kept on this device and goes by itself.</span
					>{/if}
				{#if signedIn && madeAt}This page is as of <span class="num">{madeAt}</span>.{/if}
			</p>{/if}
		{#if mine > 0}<p class="font-semibold">
				{waits(mine)} on this device{outbox.shut
					? ': sign in again, and it goes'
					: outbox.away
						? ''
						: ' and goes now'}.
			</p>{/if}
		{#if refused > 0}<p class="font-semibold">
				{refused === 1 ? 'One thing was' : `${refused} things were`} not taken by the server.
			</p>{/if}
		{#if !signedIn}
			{#each others as { name, count } (name)}<p>
					{waits(count)} here for {name}, and {count === 1 ? 'goes' : 'go'} once {name} signs in.
				</p>{/each}
		{/if}
		{#if signedIn && (mine > 0 || refused > 0) && page.url.pathname !== '/waiting'}<a
				class="ml-auto inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
				href="/waiting">See what waits</a
			>{/if}
	</div>
{/if}
