<script lang="ts">
	import type { ToGo } from '$lib/case/progress/floorWords';
	import type { CaseSummary } from '$lib/case/progress/summary';
	import Chain, { type Link } from '$lib/ui/Chain.svelte';
	import Legend from '$lib/ui/Legend.svelte';

	interface Row {
		id: string;
		number: string;
		wanted: string;
		vehicle: { nickname: string; plate: string };
		vehicleName: string;
		summary: CaseSummary;
		toGo?: ToGo | null;
		/** Why its thread is not as it was written. */
		chainBroken?: string | null;
	}
	/** The floor's table: every case with its line of stations and its next step. */
	let { rows, nextCase = null }: { rows: Row[]; nextCase?: string | null } = $props();

	const MARK = { done: 'good', begun: 'suspect', bad: 'bad', open: 'open' } as const;
	const SAYS = {
		done: 'done',
		begun: 'begun',
		bad: 'came back',
		open: 'not begun'
	} as const;
	const TODAY = { yes: 'today', perhaps: 'today, if it goes well', no: 'not today' };
	/** What it waits for, how long it may take, where it stands. */
	const asides = ({ summary: { waiting }, toGo, chainBroken }: Row): string[] => [
		...(chainBroken ? ['its thread is not as it was written'] : []),
		...(waiting && waiting.what !== 'nothing' ? [`waits for ${waiting.what}`] : []),
		...(toGo ? [`${toGo.words}${toGo.today ? `, ${TODAY[toGo.today]}` : ''}`] : []),
		...(waiting?.lift ? [waiting.lift] : [])
	];
	const links = (summary: CaseSummary): Link[] =>
		summary.stations.map((s) => ({ state: MARK[s.state], says: `${s.name} ${SAYS[s.state]}` }));
</script>

<div class="overflow-x-auto">
	<table class="w-full min-w-[740px] border-collapse text-left">
		<thead class="border-b-2 border-ink text-sm">
			<tr class="[&>th]:pr-4 [&>th]:pb-2 [&>th]:font-semibold">
				<th>Case</th><th>Vehicle</th><th>Listen → Hand over</th><th class="w-full">Next step</th><th
					class="whitespace-nowrap max-lg:hidden">Last with</th
				><th>Wanted</th>
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
					<td class="font-semibold">
						{#if row.summary.next}
							<span
								class={row.id === nextCase
									? 'inline-block rounded-md bg-next px-3 py-2 text-accent-content'
									: ''}>{row.summary.next.title}</span
							>
						{:else}
							{row.summary.verdict}
						{/if}
						{#if asides(row).length > 0}
							<span class="mt-1 block text-sm font-normal text-ink-2">{asides(row).join('; ')}</span>
						{/if}
					</td>
					<td class="max-lg:hidden">{row.summary.withName ?? '–'}</td>
					<td class="min-w-28">{row.wanted || '–'}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>
<Legend words={{ good: 'done', suspect: 'begun', bad: 'came back', open: 'not begun' }} />
