<script lang="ts">
	import { accountForm } from '$lib/ui/accountForm';
	import Wordmark from '$lib/ui/Wordmark.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	const { form, errors, message, enhance, submitting } = accountForm(data.form);
	const FIELDS = [
		{ name: 'code', label: 'Code', type: 'text', complete: 'one-time-code' },
		{ name: 'name', label: 'Your name', type: 'text', complete: 'name' },
		{ name: 'username', label: 'User name', type: 'text', complete: 'username' },
		{ name: 'password', label: 'Password', type: 'password', complete: 'new-password' }
	] as const;
	const HELP: Partial<Record<(typeof FIELDS)[number]['name'], string>> = {
		name: 'As it stands on every thread.',
		username: 'Small letters, digits, dots or dashes.',
		password: 'Eight signs or more.'
	};
</script>

<svelte:head><title>First lead · Jaldi</title></svelte:head>
<main class="grid min-h-screen grid-rows-[auto_1fr] px-8 py-5">
	<Wordmark />
	<div class="mx-auto w-full max-w-md self-center pt-8 pb-16">
		<h1 class="text-2xl leading-tight font-bold">This shop has nobody yet</h1>
		<p class="mt-2 text-ink-2">
			Make its first lead. A lead signs cases off and brings in the others. The code stands in the server’s
			window, and beside its database in <span class="num [overflow-wrap:anywhere]">{data.file}</span>.
		</p>
		<form method="POST" use:enhance class="mt-8 space-y-5">
			{#each FIELDS as { name, label, type, complete } (name)}
				<label class="block">
					<span class="mb-1 block font-semibold">{label}</span>
					<!-- svelte-ignore a11y_autofocus -->
					<input
						class="field"
						{name}
						{type}
						autocomplete={complete}
						autocapitalize="none"
						autofocus={name === 'code'}
						bind:value={$form[name]}
						aria-invalid={$errors[name] ? 'true' : undefined}
					/>
					{#if $errors[name]}<span role="alert" class="mt-1 block font-semibold">{$errors[name]?.[0]}</span>
					{:else if HELP[name]}<span class="mt-1 block text-sm text-ink-2">{HELP[name]}</span>{/if}
				</label>
			{/each}
			{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
			<button class="act w-full" disabled={$submitting}>Make the first lead</button>
		</form>
	</div>
</main>
