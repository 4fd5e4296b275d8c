<script lang="ts">
	import { goto } from '$app/navigation';
	import { toast } from 'svelte-sonner';
	import { exportOf } from '$lib/away/export';
	import { outbox } from '$lib/away/outbox.svelte';
	import type { Waiting } from '$lib/away/recorded';
	import AskOnce from '$lib/ui/AskOnce.svelte';

	/** Of whoever is signed in, in the order it was recorded in. */
	const { mine: going, refused } = $derived(outbox);
	const own = $derived([...going, ...refused]);
	const others = $derived(outbox.waiting.length - own.length);
	let busy = $state(false);

	const when = (at: string) =>
		new Date(at).toLocaleString('en-GB', { weekday: 'short', hour: '2-digit', minute: '2-digit' });
	const size = (bytes: number) =>
		bytes < 10_000 ? '' : bytes < 1e6 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`;

	async function sendNow() {
		busy = true;
		await outbox.flush();
		busy = false;
		if (outbox.away) toast.info('The server is still out of reach.');
	}
	async function comeBack(one: Waiting) {
		const caseId = await outbox.comeBack(one);
		if (caseId) void goto(`/cases/${caseId}/listen`);
		else toast.error('The comeback could not be opened. It is still here.');
	}
	async function takeOut() {
		const file = await exportOf(own, (one) => outbox.bodyOf(one));
		const link = document.createElement('a');
		link.href = URL.createObjectURL(new Blob([file], { type: 'application/zip' }));
		link.download = 'waiting-on-this-device.zip';
		link.click();
		URL.revokeObjectURL(link.href);
	}
</script>

{#snippet toCase({ caseId }: Pick<Waiting, 'caseId'>)}
	{#if caseId}<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/cases/{caseId}"
			>to its case</a
		>{/if}
{/snippet}

<svelte:head><title>What waits here · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold">
	{own.length === 0
		? 'Nothing of yours waits on this device'
		: going.length === 0
			? 'The server did not take this'
			: `${going.length === 1 ? 'One thing waits' : `${going.length} things wait`} on this device for the server`}
</h1>
<p class="mt-1 max-w-[75ch] text-lg text-ink-2">
	{going.length > 0
		? `${going.length === 1 ? 'It goes by itself' : 'They go by themselves, in this order,'} once the server answers and you are signed in, and ${going.length === 1 ? 'stays' : 'stay'} through a closed browser and an empty battery.`
		: refused.length > 0
			? 'It is kept here, with the reason, until you send it again or let it go.'
			: 'What you record while the server is out of reach is kept here and goes by itself.'}
	{#if others > 0}{others === 1 ? 'One more waits' : `${others} more wait`} for somebody else, and {others ===
		1
			? 'goes'
			: 'go'} when they are signed in here.{/if}
</p>
{#if going.length > 0}
	<div class="mt-4 flex flex-wrap gap-3">
		<button class="act" disabled={busy} onclick={sendNow}>Send it now</button>
		<button class="act-quiet" onclick={takeOut}>Take it out as a file</button>
	</div>
	<ol class="mt-4">
		{#each going as { key, what, gist, at, bytes, caseId }, nth (key)}
			<li class="flex flex-wrap items-baseline gap-x-5 border-t border-rule py-3">
				<span class="num w-8 text-ink-2">{nth + 1}</span>
				<strong class="text-lg">{what}</strong>
				<span class="num text-ink-2">{when(at)}</span>
				{#if gist}<span class="min-w-0 break-words">{gist}</span>{/if}
				<span class="num text-ink-2">{size(bytes)}</span>
				<span class="ml-auto">{@render toCase({ caseId })}</span>
			</li>
		{/each}
	</ol>
{/if}
{#if refused.length > 0}
	{#if going.length > 0}<h2 class="mt-8 text-xl font-bold">The server did not take this</h2>{/if}
	<ul class="mt-4">
		{#each refused as one (one.key)}
			<li class="flex flex-wrap items-center gap-x-5 gap-y-2 border-t border-rule py-3">
				<p class="min-w-0 flex-1 basis-80">
					<strong class="text-lg">{one.what}</strong>
					<span class="num mx-3 text-ink-2">{when(one.at)}</span>
					{one.gist ?? ''}<br />
					<span class="font-semibold">{one.refused}</span>
				</p>
				{@render toCase(one)}
				{#if one.signed}<button class="act" onclick={() => comeBack(one)}
						>It came back: open a case with it</button
					>{:else}<button class="act-quiet" onclick={() => outbox.again(one)}>Send it again</button>{/if}
				<AskOnce
					label="Let it go"
					ask="It is nowhere else: what was recorded is lost for good."
					yes="Let it go"
					onyes={() => void outbox.forget(one)}
				/>
			</li>
		{/each}
	</ul>
	{#if going.length === 0}<button class="act-quiet mt-4" onclick={takeOut}>Take it out as a file</button>{/if}
{/if}
