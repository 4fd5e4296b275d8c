<script lang="ts">
	import { accountForm } from '$lib/ui/accountForm';
	import Pages from '$lib/ui/Pages.svelte';
	import CustomerFields from './CustomerFields.svelte';

	let { data } = $props();
	// svelte-ignore state_referenced_locally
	const { form, errors, enhance, submitting } = accountForm(data.form, {
		dataType: 'json',
		draftKey: 'new-customer'
	});
	const reachedBy = ({ phone, email }: { phone: string; email: string }) =>
		[phone, email].filter(Boolean).join(', ');
</script>

<svelte:head><title>Customers · Jaldi</title></svelte:head>
<h1 class="text-2xl font-bold">
	{data.total === 0
		? 'No customer is written down yet'
		: data.total === 1
			? 'One customer'
			: `${data.total} customers`}
</h1>
<p class="mt-1 text-ink-2">
	Names stand here alone. A case says only that somebody of these brought it in, so whoever asks to be taken
	out can be, and the evidence stays.
</p>
{#if data.total > 0}
	<form class="mt-5 flex max-w-2xl flex-wrap items-end gap-4" role="search">
		<label class="min-w-52 flex-1"
			><span class="text-ink-2">Name, number or e-mail</span><input
				class="field"
				name="words"
				maxlength="60"
				value={data.words}
			/></label
		>
		<button class="act-quiet">Find</button>
		{#if data.words !== ''}<a class="act-quiet" href="/customers">All again</a>{/if}
	</form>
	<ul class="mt-4 max-w-4xl border-t-2 border-ink">
		{#each data.customers as customer (customer.id)}
			<li class="hair flex flex-wrap items-baseline gap-x-8 gap-y-0.5 py-2">
				<a
					class="inline-flex min-h-11 min-w-60 items-center font-semibold underline underline-offset-4"
					href="/customers/{customer.id}">{customer.name}</a
				>
				<span class="num">{reachedBy(customer)}</span>
			</li>
		{:else}
			<li class="py-4">Nobody of that kind: fewer letters find more.</li>
		{/each}
	</ul>
	<Pages page={data.page} pages={data.pages} />
{/if}
{#if data.mayAdd}
	<section class="mt-10 max-w-3xl" aria-labelledby="new-customer">
		<h2 id="new-customer" class="text-lg font-bold">A new customer</h2>
		<form method="POST" use:enhance class="mt-3">
			<CustomerFields bind:values={$form} errors={$errors} />
			<button class="act mt-4" disabled={$submitting}>Write them down</button>
		</form>
	</section>
{/if}
