<script lang="ts">
	import type { CaseSummary } from '$lib/case/progress/summary';
	import Chain, { type Link } from '$lib/ui/Chain.svelte';
	import Legend from '$lib/ui/Legend.svelte';
	import Mark from '$lib/ui/Mark.svelte';

	export interface Row {
		id: string;
		number: string;
		vehicle: { nickname: string; plate: string };
		vehicleName: string;
		summary: CaseSummary;
		/** Why its thread is not as it was written. */
		chainBroken?: string | null;
		promiseWords?: string | null;
		late?: boolean;
		tight?: boolean;
		today?: 'yes' | 'perhaps' | 'no' | null;
		takes?: string | null;
	}
	/**
	 * Cases, each with its line of stations and its next step: a table where there is room, else one under the other. What is
	 * planned of a case is changed from where it stands.
	 */
	let {
		rows,
		nextCase = null,
		isPlanned = false,
		onplan = null,
		sorts = []
	}: {
		rows: Row[];
		nextCase?: string | null;
		/** Whether it is shown when each is promised and who has it; else who worked on it last. */
		isPlanned?: boolean;
		/** Absent = whoever looks plans nothing. */
		onplan?: ((row: Row) => void) | null;
		/** Addresses that put the list in another order, by column. */
		sorts?: readonly { column: string; href: string; here: boolean }[];
	} = $props();

	const MARK = { done: 'good', begun: 'suspect', bad: 'bad', open: 'open' } as const;
	const SAYS = { done: 'done', begun: 'begun', bad: 'came back', open: 'not begun' } as const;
	const TODAY = { yes: 'today', perhaps: 'today, if it goes well', no: 'not today' };
	/** What it waits for, how long it may take, where it stands. */
	const asides = ({ summary: { waiting, comebackOf }, takes, today, chainBroken }: Row): string =>
		[
			...(chainBroken ? ['its thread is not as it was written'] : []),
			...(comebackOf ? [`comeback of ${comebackOf}`] : []),
			...(waiting && waiting.what !== 'nothing' ? [`waits for ${waiting.what}`] : []),
			...(takes ? [`about ${takes}${today ? `, ${TODAY[today]}` : ''}`] : []),
			...(waiting?.lift ? [waiting.lift] : [])
		].join('; ');
	const links = (summary: CaseSummary): Link[] =>
		summary.stations.map((s) => ({ state: MARK[s.state], says: `${s.name} ${SAYS[s.state]}` }));
	const sortOf = (column: string) => sorts.find((one) => one.column === column);
</script>

{#snippet head(column: string, looks = '')}
	{@const sort = sortOf(column)}
	<th class={looks} aria-sort={sort?.here ? 'ascending' : undefined}
		>{#if sort}<a
				href={sort.href}
				class="inline-flex min-h-11 items-end underline-offset-4 {sort.here ? 'font-extrabold' : 'underline'}"
				>{column}{sort.here ? ' ↓' : ''}</a
			>{:else}{column}{/if}</th
	>
{/snippet}
{#snippet step(row: Row)}
	{#if row.summary.next}
		<span class={row.id === nextCase ? 'inline-block rounded-md bg-next px-3 py-2 text-accent-content' : ''}
			>{row.summary.next.title}</span
		>
	{:else}
		{row.summary.verdict}
	{/if}
	{#if asides(row) !== ''}
		<span class="mt-1 block text-sm font-normal text-ink-2">{asides(row)}</span>
	{/if}
{/snippet}
{#snippet promise(row: Row)}
	{#if row.late || row.tight}
		<span class="flex items-center gap-2 font-semibold"
			><Mark state={row.late ? 'bad' : 'suspect'} size={16} />{row.promiseWords}</span
		>
		<span class="block text-sm">{row.late ? 'late' : 'hardly in time'}</span>
	{:else}{row.promiseWords ?? 'nothing promised'}{/if}
{/snippet}
{#snippet plan(row: Row, words: string, looks: string)}
	{#if onplan}
		<button
			type="button"
			class="relative z-10 min-h-11 cursor-pointer text-left underline decoration-rule decoration-2 underline-offset-4 hover:decoration-ink {looks}"
			aria-label="Plan {row.number}, {row.vehicle.nickname}"
			onclick={() => onplan(row)}>{words}</button
		>
	{:else}{words}{/if}
{/snippet}

<table class="w-full border-collapse text-left max-lg:hidden">
	<thead class="border-b-2 border-ink text-sm">
		<tr class="[&>th]:pr-4 [&>th]:pb-1 [&>th]:align-bottom [&>th]:font-semibold">
			{@render head('Case')}
			{@render head('Vehicle')}
			{@render head('Listen → Hand over')}
			{@render head('Next step', 'w-full')}
			{#if isPlanned}{@render head('Promised for')}{/if}
			{@render head(isPlanned ? 'Has it' : 'Last worked by')}
		</tr>
	</thead>
	<tbody>
		{#each rows as row (row.id)}
			<tr class="relative border-b border-rule [&>td]:py-3 [&>td]:pr-4">
				<td class="num whitespace-nowrap"
					><a href="/cases/{row.id}" class="after:absolute after:inset-0">{row.number}</a></td
				>
				<td>
					<span class="block font-semibold whitespace-nowrap">{row.vehicleName}</span>
					<span class="block text-sm whitespace-nowrap text-ink-2">{row.vehicle.nickname}</span>
				</td>
				<td><Chain links={links(row.summary)} step={26} size={16} /></td>
				<td class="font-semibold">{@render step(row)}</td>
				{#if isPlanned}
					<td class="min-w-32">{@render promise(row)}</td>
					<td class="whitespace-nowrap"
						>{@render plan(row, row.summary.assigned?.name ?? 'nobody yet', '')}</td
					>
				{:else}<td>{row.summary.withName ?? '–'}</td>{/if}
			</tr>
		{/each}
	</tbody>
</table>
<ul class="lg:hidden">
	{#each rows as row (row.id)}
		<li class="relative grid gap-x-8 border-b border-rule py-4 sm:grid-cols-[minmax(0,17rem)_minmax(0,1fr)]">
			<div>
				<p class="flex items-baseline justify-between gap-3">
					<a href="/cases/{row.id}" class="text-lg leading-tight font-bold after:absolute after:inset-0"
						>{row.vehicleName}</a
					>
					<span class="num text-sm text-ink-2">{row.number}</span>
				</p>
				<p class="text-ink-2">{row.vehicle.nickname}</p>
				<div class="my-2"><Chain links={links(row.summary)} step={26} size={16} /></div>
			</div>
			<div class="flex flex-col justify-between">
				<div class="font-semibold">{@render step(row)}</div>
				{#if isPlanned}
					<div class="mt-1 flex flex-wrap items-center justify-between gap-x-4">
						<div>{@render promise(row)}</div>
						{@render plan(row, row.summary.assigned?.name ?? 'nobody yet', 'ml-auto')}
					</div>
				{/if}
			</div>
		</li>
	{/each}
</ul>
<Legend words={{ good: 'done', suspect: 'begun', bad: 'came back', open: 'not begun' }} />
