<script lang="ts">
	import { deserialize } from '$app/forms';
	import { outbox } from '$lib/away/outbox.svelte';
	import Field from '$lib/ui/Field.svelte';
	import { refreshAll } from '$lib/ui/refresh';
	import { sessionEnded } from '$lib/ui/sessionEnded.svelte';

	/** A sign-in over the page that was open when the last one ended: what is on it stays, and what waited goes. */
	let { username }: { username: string } = $props();
	let dialog: HTMLDialogElement;
	let name = $state('');
	let password = $state('');
	let trouble = $state('');
	let busy = $state(false);
	let isLater = $state(false);
	/** What waits may go by another tab, or once somebody signed in there: then nothing is asked any more. */
	const shut = $derived(outbox.shut && outbox.mine.length > 0);
	const ended = $derived((shut || sessionEnded.now) && !isLater);
	$effect(() => {
		if (!shut) isLater = false;
	});
	$effect(() => {
		if (!ended) return dialog.close();
		name = username;
		trouble = '';
		if (!dialog.open) dialog.showModal();
	});
	type Said = { form?: { message?: string; errors?: Record<string, string[] | undefined> } };

	async function signIn(event: SubmitEvent) {
		event.preventDefault();
		if (busy) return;
		busy = true;
		trouble = await send().catch(() => 'The server cannot be reached.');
		busy = false;
	}

	/** @returns what is wrong; empty = nothing */
	async function send(): Promise<string> {
		const here = encodeURIComponent(location.pathname + location.search);
		const response = await fetch(`/sign-in?/in&back=${here}`, {
			method: 'POST',
			headers: { accept: 'application/json', 'x-sveltekit-action': 'true' },
			body: new URLSearchParams({ username: name, password })
		});
		const result = deserialize<Said, Said>(await response.text());
		password = '';
		if (result.type === 'failure' || result.type === 'success') {
			const { message, errors } = result.data?.form ?? {};
			return message ?? errors?.password?.[0] ?? errors?.username?.[0] ?? 'That did not work.';
		}
		if (result.type === 'error') return 'That did not work. Try again.';
		// A second factor is asked for on its own page, and another person has pages of their own.
		if (result.location.startsWith('/sign-in') || name.toLowerCase() !== username.toLowerCase()) {
			location.href = result.location.startsWith('/sign-in') ? result.location : '/';
			return '';
		}
		sessionEnded.now = false;
		dialog.close();
		await outbox.flush();
		await refreshAll();
		return '';
	}
</script>

<dialog
	bind:this={dialog}
	class="modal"
	aria-labelledby="session-ended"
	onclose={() => {
		isLater = shut;
		sessionEnded.now = false;
	}}
>
	{#if ended}
		<form class="modal-box space-y-4 border-2 border-ink bg-base-100" onsubmit={signIn}>
			<h2 id="session-ended" class="text-xl font-bold">Your sign-in has ended</h2>
			<p>Nothing on this page is lost. Sign in, and it goes on.</p>
			<Field label="User name"
				><input class="field" autocomplete="username" autocapitalize="none" bind:value={name} /></Field
			>
			<Field label="Password"
				><!-- svelte-ignore a11y_autofocus --><input
					class="field"
					type="password"
					autocomplete="current-password"
					autofocus
					bind:value={password}
				/></Field
			>
			{#if trouble}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{trouble}</p>{/if}
			<div class="flex flex-wrap gap-3">
				<button class="act" disabled={busy || password === ''}>Sign in and go on</button>
				<button type="button" class="act-quiet" onclick={() => dialog.close()}>Later</button>
			</div>
		</form>
	{/if}
</dialog>
