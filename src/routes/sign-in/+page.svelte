<script lang="ts">
	import { accountForm } from '$lib/ui/accountForm';
	import { onMount } from 'svelte';
	import Wordmark from '$lib/ui/Wordmark.svelte';
	import { forgetPages } from '$lib/away/keepPages';

	let { data } = $props();
	onMount(() => void forgetPages());
	// svelte-ignore state_referenced_locally
	const { form, errors, message, enhance, submitting } = accountForm(data.form);
</script>

<svelte:head><title>Sign in · Jaldi</title></svelte:head>
<main class="grid min-h-screen grid-rows-[auto_1fr] px-8 py-5">
	<Wordmark />
	<div class="mx-auto w-full max-w-md self-center pb-32">
		<h1 class="text-2xl leading-tight font-bold">From “the lamp is on” to “proven fixed”</h1>
		<p class="mt-2 text-ink-2">Sign in, so that everything you write down carries your name.</p>
		<form method="POST" action="?/in&back={encodeURIComponent(data.back)}" use:enhance class="mt-8 space-y-5">
			<label class="block">
				<span class="mb-1 block font-semibold">User name</span>
				<!-- svelte-ignore a11y_autofocus -->
				<input
					class="field"
					name="username"
					autocomplete="username"
					autocapitalize="none"
					autofocus
					bind:value={$form.username}
					aria-invalid={$errors.username ? 'true' : undefined}
				/>
				{#if $errors.username}<span class="mt-1 block font-semibold">{$errors.username[0]}</span>{/if}
			</label>
			<label class="block">
				<span class="mb-1 block font-semibold">Password</span>
				<input
					class="field"
					name="password"
					type="password"
					autocomplete="current-password"
					bind:value={$form.password}
					aria-invalid={$errors.password ? 'true' : undefined}
				/>
				{#if $errors.password}<span role="alert" class="mt-1 block font-semibold">{$errors.password[0]}</span
					>{/if}
			</label>
			{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
			<button class="act w-full" disabled={$submitting}>Sign in</button>
		</form>
	</div>
</main>
