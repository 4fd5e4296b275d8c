<script lang="ts">
	import { enhance } from '$app/forms';

	/** Where somebody is signed in, and the way to end it. The page has the action `end`. */
	interface Props {
		sessions: { id: string; since: string; seen: string; address: string; device: string; here: boolean }[];
	}
	let { sessions }: Props = $props();
	const others = $derived(sessions.filter(({ here }) => !here).length);
</script>

<section aria-labelledby="sessions" class="lg:col-span-2">
	<h2 id="sessions" class="text-lg font-bold">
		{sessions.length === 0
			? 'Signed in nowhere'
			: sessions.length === 1
				? 'Signed in at one place'
				: `Signed in at ${sessions.length} places`}
	</h2>
	<ul class="mt-2 {sessions.length > 0 ? 'border-t border-ink' : ''}">
		{#each sessions as one (one.id)}
			<li class="hair flex min-h-14 flex-wrap items-center justify-between gap-x-6 gap-y-2 py-1">
				<span
					>On {one.device} at <span class="num">{one.address || 'this machine'}</span>, since {one.since},
					seen {one.seen}</span
				>
				{#if one.here}<strong>here</strong>
				{:else}
					<form method="POST" action="?/end" use:enhance>
						<input type="hidden" name="session" value={one.id} />
						<button class="act-quiet">Sign out there</button>
					</form>
				{/if}
			</li>
		{/each}
	</ul>
	{#if others > 1}
		<form method="POST" action="?/end" use:enhance class="mt-3">
			<button class="act-quiet">Sign out at all {others} others</button>
		</form>
	{/if}
</section>
