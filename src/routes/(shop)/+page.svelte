<script lang="ts">
	import { page } from '$app/state';
	import { askedWith } from '$lib/ui/askedWith';
	import { refreshAll } from '$lib/ui/refresh';
	import Pages from '$lib/ui/Pages.svelte';
	import WhoWhen from '$lib/ui/WhoWhen.svelte';
	import ByPerson from './ByPerson.svelte';
	import CaseList from './CaseList.svelte';
	import OnlySome from './OnlySome.svelte';
	import { floorHeading, SHOW_NAMES } from './floorHeading';

	let { data } = $props();
	let planner = $state<WhoWhen>();
	const floor = $derived(data.floor);
	const mayPlan = $derived(data.member !== null && data.member?.role !== 'viewer');
	const shows = $derived(
		SHOW_NAMES.filter(({ show }) => show === 'all' || show === data.asked.show || floor.counts[show] > 0)
	);

	/** The same list, asked otherwise; from its first page. */
	const asking = (changes: Record<string, string | null>) =>
		`/${askedWith(page.url.search, { ...changes, page: null })}`;
	const sorts = $derived(
		(
			[
				['Case', 'number'],
				['Vehicle', 'vehicle'],
				['Promised for', 'promised'],
				['Next step', null]
			] as const
		).map(([column, sort]) => ({
			column,
			href: asking({ sort }),
			here: data.asked.sort === (sort ?? 'urgency')
		}))
	);

	const plan = (id: string) => {
		const row = floor.rows.find((one) => one.id === id);
		if (!row) return;
		const { vehicleName, vehicle, promise, summary } = row;
		planner?.open({
			id,
			name: `${row.number}, ${vehicleName}, ${vehicle.nickname}`,
			promise,
			assigned: summary.assigned ?? null,
			waiting: summary.waiting ?? null
		});
	};
</script>

<svelte:head><title>Open cases · Jaldi</title></svelte:head>
{#if data.aside > 0}
	<p role="alert" class="mb-5 border-l-4 border-ink pl-4 text-lg">
		<strong
			>{data.aside === 1 ? 'One piece of work is' : `${data.aside} pieces of work are`} not on a thread.</strong
		>
		<a class="underline underline-offset-4" href="/library/aside">Look at what was put aside</a>
	</p>
{/if}
{#if floor.counts.all === 0}
	<h1 class="text-2xl font-bold">No case is open</h1>
	<p class="mt-2 text-lg">
		Open one when a vehicle comes in<span class="of-keys"
			>: press <kbd class="rounded border border-ink px-2 font-mono">n</kbd></span
		>.
	</p>
	<a class="act mt-6" href="/cases/new">New case</a>
{:else}
	<h1 class="text-2xl leading-tight font-bold">{floorHeading(floor.counts, floor.today)}</h1>
	{#if floor.next}
		<p class="mt-1 text-lg text-ink-2">
			Next: <a class="text-ink underline underline-offset-4" href="/cases/{floor.next.id}"
				>{floor.next.nickname}</a
			>{floor.next.late
				? `, late since ${floor.next.due}`
				: floor.next.isBack
					? ', came back'
					: floor.next.due
						? `, promised for ${floor.next.due}`
						: ''}
		</p>
	{/if}
	<nav aria-label="Which cases" class="mt-4 flex flex-wrap items-center gap-x-5 border-b border-rule">
		{#each shows as { show, name }, nth (nth)}
			{@const here = show === data.asked.show}
			<a
				href={asking({ show: show === 'all' ? null : show })}
				aria-current={here ? 'page' : undefined}
				class="inline-flex min-h-11 items-center gap-2 {here
					? 'border-b-4 border-ink pt-1 font-bold'
					: 'text-ink-2'}">{name} <span class="num">{floor.counts[show]}</span></a
			>
		{/each}
		<a
			href={asking({ by: data.asked.byPerson ? null : 'person' })}
			class="inline-flex min-h-11 items-center underline underline-offset-4 sm:ml-auto"
			>{data.asked.byPerson ? 'As a list' : 'By person'}</a
		>
	</nav>
	<OnlySome
		asked={{ words: data.asked.words, code: data.asked.code, with: data.asked.with }}
		found={floor.found}
		of={floor.counts.all}
	>
		{#snippet more()}
			<label class="min-w-0 flex-[1_1_9rem]"
				><span class="text-ink-2">Who has it</span><select class="field" name="with" value={data.asked.with}
					><option value="">anybody</option><option value="nobody">nobody yet</option
					>{#each floor.people as { id, name } (id)}<option value={id}>{name}</option>{/each}</select
				></label
			>
		{/snippet}
	</OnlySome>
	{#if floor.found === 0}
		<p class="my-8 text-lg">None of the open cases is one of these.</p>
	{:else if data.asked.byPerson}
		<ByPerson {floor} {mayPlan} onplan={plan} onsaved={() => void refreshAll()} />
	{:else}
		<CaseList
			rows={floor.rows}
			nextCase={floor.next?.id ?? null}
			{sorts}
			isPlanned
			onplan={mayPlan ? ({ id }) => plan(id) : null}
		/>
		<Pages page={floor.page} pages={floor.pages} />
	{/if}
	<WhoWhen
		bind:this={planner}
		people={floor.people}
		closesAtHour={floor.closesAtHour}
		onsaved={() => void refreshAll()}
	/>
{/if}
