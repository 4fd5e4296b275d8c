<script lang="ts">
	import { enhance } from '$app/forms';
	import { dndzone, type DndEvent } from 'svelte-dnd-action';
	import { hourWords } from '$lib/case/progress/floorWords';
	import { sendEntry } from '$lib/away/record';
	import type { FloorRow } from '$lib/server/cases/floorPage';

	/** The open cases under whoever has them: a case is given to somebody by pulling it there, or by its button. */
	let {
		floor,
		mayPlan,
		onplan,
		onsaved
	}: {
		floor: { rows: FloorRow[]; people: { id: string; name: string; notHere: boolean }[] };
		mayPlan: boolean;
		onplan: (id: string) => void;
		onsaved: () => void;
	} = $props();

	interface Lane {
		/** Account; empty = nobody's yet. */
		id: string;
		name: string;
		items: FloorRow[];
	}
	const lanesOf = (): Lane[] => {
		const others = floor.rows.flatMap(({ summary }) => summary.assigned ?? []);
		const people = [{ id: '', name: 'Nobody yet' }, ...floor.people, ...others];
		return people
			.filter(({ id }, at) => people.findIndex((one) => one.id === id) === at)
			.map(({ id, name }) => ({
				id,
				name,
				items: floor.rows.filter(({ withId }) => (withId ?? '') === id)
			}));
	};
	const isHere = ({ id }: Lane) => !floor.people.some((one) => one.id === id && one.notHere);
	const workOf = ({ items }: Lane) => items.reduce((sum, { minutes }) => sum + minutes, 0);
	// What is pulled about lies where it was pulled to until the server has said so.
	let lanes = $derived(lanesOf());

	function lay(at: number, items: FloorRow[]): void {
		lanes = lanes.map((lane, nth) => (nth === at ? { ...lane, items } : lane));
	}
	async function drop(at: number, { items, info }: DndEvent<FloorRow>): Promise<void> {
		lay(at, items);
		const lane = lanes[at];
		const given = items.find(({ id, withId }) => id === info.id && (withId ?? '') !== lane?.id);
		if (!given || !lane) return;
		await sendEntry(given.id, 'assigned', { to: lane.id === '' ? null : { id: lane.id, name: lane.name } });
		onsaved();
	}
</script>

<p class="mt-2 mb-4 text-ink-2">
	{mayPlan
		? 'Pull a case to whoever is to have it; by keyboard: Enter on a case, arrows, Enter.'
		: 'Each under whoever has it.'}
</p>
<div class="grid gap-x-8 gap-y-6 sm:grid-cols-2 xl:grid-cols-3">
	{#each lanes as lane, at (at)}
		<section aria-labelledby="lane-{lane.id}">
			<h2 id="lane-{lane.id}" class="border-b-2 border-ink pb-1 text-lg font-bold">
				{lane.name} <span class="num font-normal">{lane.items.length}</span>
				{#if workOf(lane) > 0}<span class="text-base font-normal text-ink-2"
						>{hourWords(workOf(lane))} of work</span
					>{/if}
			</h2>
			{#if mayPlan && lane.id !== ''}
				<form method="POST" action="?/here" use:enhance>
					<input type="hidden" name="id" value={lane.id} />
					<label class="inline-flex min-h-11 cursor-pointer items-center gap-3">
						<input
							type="checkbox"
							class="checkbox"
							name="here"
							value="yes"
							checked={isHere(lane)}
							aria-label="{lane.name} is here today"
							onchange={({ currentTarget }) => currentTarget.form?.requestSubmit()}
						/>
						{isHere(lane) ? 'here today' : 'not here today: what they have waits'}
					</label>
				</form>
			{/if}
			<ul
				class="min-h-20"
				aria-label={lane.name}
				use:dndzone={{
					items: lane.items,
					dragDisabled: !mayPlan,
					flipDurationMs: 0,
					dropTargetStyle: {},
					dropTargetClasses: ['bg-raised'],
					zoneItemTabIndex: 0
				}}
				onconsider={({ detail }) => lay(at, detail.items)}
				onfinalize={({ detail }) => void drop(at, detail)}
			>
				{#each lane.items as row (row.id)}
					<li class="border-b border-rule py-3" aria-label="{row.vehicle.nickname}, {row.number}">
						<a class="font-semibold underline-offset-4 hover:underline" href="/cases/{row.id}"
							>{row.vehicle.nickname}</a
						>
						<span class="num text-sm text-ink-2">{row.number}</span>
						<span class="block">{row.summary.next?.title ?? row.summary.verdict}</span>
						<span class="flex items-center justify-between gap-3 text-sm text-ink-2">
							<span
								>{[row.promiseWords, row.late ? 'late' : null, row.takes ? `about ${row.takes}` : null]
									.filter(Boolean)
									.join('; ')}</span
							>
							{#if mayPlan}<button
									type="button"
									class="min-h-11 cursor-pointer text-base underline underline-offset-4"
									aria-label="Plan {row.number}, {row.vehicle.nickname}"
									onclick={() => onplan(row.id)}>Plan</button
								>{/if}
						</span>
					</li>
				{/each}
			</ul>
		</section>
	{/each}
</div>
