<script lang="ts">
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
	/** What goes at once is not worth a word: it would come and go with everything that is saved. */
	const WORTH_A_WORD_MS = 2_000;
	let lasting = $state(false);
	const some = $derived(outbox.mine.length > 0);
	$effect(() => {
		if (!some) return;
		const timer = setTimeout(() => (lasting = true), WORTH_A_WORD_MS);
		return () => {
			clearTimeout(timer);
			lasting = false;
		};
	});
	const mine = $derived(lasting || outbox.away || outbox.shut ? outbox.mine.length : 0);
	const refused = $derived(outbox.refused.length);
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
		class="no-print flex flex-wrap items-center gap-x-6 gap-y-1 bg-ink px-6 py-1 text-base-200"
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
		{#if mine > 0 || refused > 0}
			<a href="/waiting" class="inline-flex min-h-11 items-center font-semibold underline underline-offset-4">
				{#if mine > 0}{waits(mine)} on this device{outbox.shut
						? ': sign in again, and it goes'
						: outbox.away
							? ''
							: ' and goes by itself'}.{/if}
				{#if refused > 0}{refused === 1 ? 'One thing was' : `${refused} things were`} not taken by the server.{/if}
			</a>
		{/if}
		{#if !signedIn}
			{#each others as { name, count }, nth (nth)}<p>
					{waits(count)} here for {name}, and {count === 1 ? 'goes' : 'go'} once {name} signs in.
				</p>{/each}
		{/if}
	</div>
{/if}
