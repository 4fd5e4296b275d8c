<script lang="ts">
	import { moneyWords } from '$lib/core/money/money';
	import { upperFirst } from '$lib/case/words';
	import MendNav from '../MendNav.svelte';
	import Answer from './Answer.svelte';
	import Lines from './Lines.svelte';

	let { data } = $props();
	const { state: stands, estimate, answer, upTo, beyond } = $derived(data.agreement);
	const total = $derived(estimate ? moneyWords(estimate.total, estimate.currency) : '');
	const agreed = $derived(estimate && upTo !== null ? moneyWords(upTo, estimate.currency) : '');
	const headline = $derived(
		{
			none: 'Nobody has said yet what it costs',
			'to-ask': `${total}: ask the customer`,
			refused: `The customer does not agree to ${total}`,
			agreed: `Agreed: up to ${agreed}`,
			more: `More than was agreed: ask again`
		}[stands]
	);
</script>

<svelte:head><title>{data.case.number} Estimate · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">{headline}</h1>
	{#if stands === 'more'}
		<p class="mt-1 text-lg">
			{total} is asked, {agreed} was agreed to{beyond.length > 0
				? `; done without having been asked: ${beyond.join(', ')}`
				: ''}.
		</p>
	{:else if answer}
		<p class="mt-1 text-lg text-ink-2">
			{upperFirst(answer.who)}, {answer.how}, <span class="num">{answer.at}</span>; written down by {answer.by}{answer.words
				? `: “${answer.words}”`
				: ''}.
		</p>
	{:else if stands === 'none'}
		<p class="mt-1 text-ink-2">
			What it is to cost, and that the customer agrees, before a part is fitted. What is agreed stands on
			their paper.
		</p>
	{/if}
	{#if data.customer}
		<p class="mt-1">
			<a class="underline underline-offset-4" href="/customers/{data.customer.id}">{data.customer.name}</a
			>{#if data.customer.phone}<a
					class="num ml-4 inline-flex min-h-11 items-center underline underline-offset-4"
					href="tel:{data.customer.phone}">{data.customer.phone}</a
				>{/if}
			{#if data.customer.consent === 'nothing'}<strong class="ml-4">They call us: do not call them.</strong
				>{/if}
		</p>
	{/if}
	<MendNav caseId={data.case.id} here="/estimate" />
</section>

{#if !data.terms}
	<p class="mt-6 text-lg">
		What an hour costs is not said yet.
		{#if data.member?.role === 'lead'}<a class="underline underline-offset-4" href="/papers"
				>Papers, prices and units</a
			>{:else}A lead says it under People, Papers, prices and units.{/if}
	</p>
{:else}
	{#if estimate && stands !== 'none' && data.mayMake}
		{#key estimate.id}<Answer caseId={data.case.id} {estimate} isAnswered={answer !== null} />{/key}
	{/if}
	{#key `${data.case.id} ${estimate?.id}`}
		<Lines
			caseId={data.case.id}
			terms={data.terms}
			last={estimate}
			start={data.start}
			mayMake={data.mayMake}
		/>
	{/key}
{/if}
