<script lang="ts">
	import { goto } from '$app/navigation';
	import { toast } from 'svelte-sonner';
	import { outbox, type Waiting } from './outbox.svelte';

	/** What waits on this device for the server, and what the server did not take. */
	const waiting = $derived(outbox.waiting.filter(({ refused }) => refused === undefined).length);
	const refused = $derived(outbox.waiting.filter((one) => one.refused !== undefined));

	async function comeBack(one: Waiting) {
		const caseId = await outbox.comeBack(one);
		if (caseId) void goto(`/cases/${caseId}/listen`);
		else toast.error('The comeback could not be opened. The entry is still here.');
	}
</script>

{#if waiting > 0}
	<p role="status" class="mb-3 border-l-4 border-ink pl-3 font-semibold">
		{waiting === 1 ? 'One entry waits' : `${waiting} entries wait`} on this device for the server; {waiting ===
		1
			? 'it goes by itself'
			: 'they go by themselves'} once it answers and you are signed in.
	</p>
{/if}
{#each refused as one (one.body.id)}
	{@const { body, refused: why } = one}
	<p role="alert" class="mb-3 flex flex-wrap items-center gap-x-4 border-l-4 border-ink pl-3">
		<span
			><strong>An entry that waited here was refused:</strong>
			{why} It says: <span class="num">{JSON.stringify(body.payload).slice(0, 300)}</span></span
		>
		{#if one.signed}
			<button class="act-quiet" onclick={() => comeBack(one)}>It came back: open a case with it</button>
		{/if}
		<button class="act-quiet" onclick={() => outbox.forget(body.id)}>Let it go</button>
	</p>
{/each}
