<script lang="ts">
	import { accountForm } from '$lib/ui/accountForm';
	import Wordmark from '$lib/ui/Wordmark.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	const { form, errors, message, enhance, submitting } = accountForm(data.form);
</script>

<svelte:head><title>Come in · Jaldi</title></svelte:head>
<main class="grid min-h-screen grid-rows-[auto_1fr] px-8 py-5">
	<Wordmark />
	<div class="mx-auto w-full max-w-md self-center pt-8 pb-32">
		<h1 class="text-2xl leading-tight font-bold">Choose your password</h1>
		<p class="mt-2 text-ink-2">
			A lead of this shop gave you a code. It works once; from then on your password does.
		</p>
		<form method="POST" use:enhance class="mt-8 space-y-5">
			<label class="block">
				<span class="mb-1 block font-semibold">Code</span>
				<input
					class="field num"
					name="code"
					autocomplete="one-time-code"
					bind:value={$form.code}
					aria-invalid={$errors.code ? 'true' : undefined}
				/>
				{#if $errors.code}<span role="alert" class="mt-1 block font-semibold">{$errors.code[0]}</span>{/if}
			</label>
			<label class="block">
				<span class="mb-1 block font-semibold">Password</span>
				<input
					class="field"
					name="password"
					type="password"
					autocomplete="new-password"
					bind:value={$form.password}
					aria-invalid={$errors.password ? 'true' : undefined}
				/>
				{#if $errors.password}<span role="alert" class="mt-1 block font-semibold">{$errors.password[0]}</span>
				{:else}<span class="mt-1 block text-sm text-ink-2"
						>Eight signs or more; three words of your own are good.</span
					>{/if}
			</label>
			{#if $message}<p role="alert" class="border-l-4 border-ink pl-3 font-semibold">{$message}</p>{/if}
			<button class="act w-full" disabled={$submitting}>Come in</button>
		</form>
	</div>
</main>
