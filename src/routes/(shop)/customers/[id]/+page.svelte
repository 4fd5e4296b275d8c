<script lang="ts">
	import { enhance as plainly } from '$app/forms';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import PastList from '$lib/ui/PastList.svelte';
	import { CONSENT_WORDS } from '../CustomerFields.svelte';
	import ChangeCustomer from './ChangeCustomer.svelte';

	let { data } = $props();
	const customer = $derived(data.customer);
	const NAMES = {
		name: 'Name',
		phone: 'Telephone',
		email: 'E-mail',
		address: 'Address',
		note: 'To remember',
		consent: 'We may write and call',
		consentHow: 'How they said so'
	};
</script>

<svelte:head><title>{customer.name} · Jaldi</title></svelte:head>
<p>
	<a class="inline-flex min-h-11 items-center underline underline-offset-4" href="/customers">Customers</a>
</p>
<h1 class="text-2xl leading-tight font-bold">{customer.name}</h1>
<p class="mt-1 text-lg">
	{#if customer.phone}<a class="num underline underline-offset-4" href="tel:{customer.phone}"
			>{customer.phone}</a
		>{/if}
	{#if customer.email}<a
			class="ml-4 underline underline-offset-4 max-sm:ml-0 max-sm:block"
			href="mailto:{customer.email}">{customer.email}</a
		>{/if}
	<span class="block text-ink-2"
		>Customer since {customer.since}; we may write and call {CONSENT_WORDS[
			customer.consent
		]}{customer.consentHow ? ` (${customer.consentHow})` : ''}.</span
	>
</p>
{#if customer.note}<p class="mt-2 border-l-4 border-ink pl-3">{customer.note}</p>{/if}

<div class="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<section aria-labelledby="brought">
		<h2 id="brought" class="text-xl font-bold">
			{data.cases.length === 0 ? 'They brought nothing in yet' : 'What they brought in'}
		</h2>
		<ul>
			{#each data.cases as one (one.id)}
				<li class="hair py-3">
					<a class="num font-semibold underline underline-offset-4" href="/cases/{one.id}">{one.number}</a>
					<span class="ml-3">{one.vehicle}</span>
					<span class="ml-3 text-ink-2">{one.signed ? 'signed' : 'open'}</span>
					{#if one.complaint}<p>“{one.complaint}”</p>{/if}
					<p class="text-ink-2">{one.verdict}</p>
				</li>
			{/each}
		</ul>
		{#if !data.isAll}<p class="mt-3 text-ink-2">The newest {data.cases.length}.</p>{/if}
	</section>
	{#if data.vehicles.length > 0}
		<section aria-labelledby="theirs">
			<h2 id="theirs" class="text-xl font-bold">Their vehicles</h2>
			<ul>
				{#each data.vehicles as vehicle (vehicle.id)}
					<li class="hair py-1">
						<a
							class="inline-flex min-h-11 items-center underline underline-offset-4"
							href="/vehicles/{vehicle.id}">{vehicle.name}</a
						>
						<span class="num ml-3">{vehicle.plate}</span>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
</div>

{#if data.mayChange}{#key customer.id}<ChangeCustomer id={customer.id} data={data.form} />{/key}{/if}
<PastList past={data.past} now={customer} names={NAMES} />
{#if data.mayForget}
	<section class="mt-10 max-w-3xl border-t border-rule pt-5" aria-labelledby="forget">
		<h2 id="forget" class="text-lg font-bold">Taking them out</h2>
		<p class="text-ink-2">
			For whoever asks to be forgotten. Their cases stay, and say only that somebody brought the vehicle in.
		</p>
		<form method="POST" action="?/forget" use:plainly class="mt-2">
			<AskOnce
				label="Take this customer out"
				ask="Name, numbers and all that they were before go, and do not come back."
				yes="Take them out"
			/>
		</form>
	</section>
{/if}
