<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import type { Disagreement, SourceView } from '$lib/case/codes/codeSources';
	import Sideways from '$lib/ui/Sideways.svelte';

	/** What each source says, side by side, and on what they do not agree. */
	interface Props {
		sources: SourceView[];
		disagreements: Disagreement[];
		maker: string | null;
		makers: string[];
		isMakers: boolean;
		onmaker: (maker: string) => void;
	}
	let { sources, disagreements, maker, makers, isMakers, onmaker }: Props = $props();
	const ROWS: { head: string; text: (s: SourceView) => string | null }[] = [
		{ head: 'Calls it', text: (s) => s.title },
		{ head: 'Circuit', text: (s) => s.where },
		{ head: 'Set when', text: (s) => s.setWhen },
		{ head: 'Its test completes with', text: (s) => s.testRunsWhen },
		{ head: 'Lamps', text: (s) => s.lamps.join(', ') || null },
		{ head: 'Driving', text: (s) => s.driving },
		{ head: 'Possible causes', text: (s) => s.causes.join('; ') || null },
		{ head: 'Notes', text: (s) => s.notes || null }
	];
	const rows = $derived(ROWS.filter((row) => sources.some((s) => row.text(s) !== null)));
	const WORDS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six'];
	const count = $derived(WORDS[sources.length] ?? String(sources.length));
	const differs = (head: string) =>
		(head === 'Circuit' && disagreements.some((d) => d.about === 'which circuit it is')) ||
		(head === 'Set when' && disagreements.some((d) => d.about === 'what sets it')) ||
		(head === 'Driving' && disagreements.some((d) => d.about === 'whether one may drive'));
</script>

<section class="mt-8 border-t-2 border-ink pt-4" aria-labelledby="sources">
	<div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
		<h2 id="sources" class="text-lg font-bold">
			{#if sources.length === 0}No source here describes it
			{:else if sources.length === 1}One source describes it
			{:else if disagreements.length === 0}{count} sources, and they agree
			{:else}{count} sources, and they disagree on {disagreements.map((d) => d.about).join(' and ')}{/if}
		</h2>
		<label class="flex items-center gap-2 text-ink-2">
			for a vehicle of
			<select
				class="field w-auto!"
				value={maker ?? ''}
				onchange={(event) => onmaker(event.currentTarget.value)}
			>
				<option value="">any maker</option>
				{#each makers as name, nth (nth)}<option>{name}</option>{/each}
			</select>
		</label>
	</div>
	{#if sources.length === 0}
		<p class="mt-2">
			{isMakers && !maker
				? 'It is a maker’s own number: choose the maker of the vehicle.'
				: 'Bring in a pack on the page Library, or have a lead write the shop’s own words.'}
		</p>
	{:else}
		<Sideways label="What each source says" class="mt-3">
			<table
				class="w-full border-collapse text-left align-top"
				style:min-width="{8 + sources.length * 12}rem"
			>
				<thead>
					<tr class="[&>th]:pr-5 [&>th]:pb-2 [&>th]:align-bottom">
						<th class="w-32"><span class="sr-only">About</span></th>
						{#each sources as source, nth (nth)}
							<th>
								<span class="block font-bold">{source.name}</span>
								<span class="block text-sm font-normal text-ink-2"
									>{source.source}; <span class="num">{source.date}</span></span
								>
							</th>
						{/each}
					</tr>
				</thead>
				<tbody>
					{#each rows as { head, text }, nth (nth)}
						<tr class="border-t border-rule [&>*]:py-2 [&>*]:pr-5 [&>*]:align-top">
							<th class="text-sm font-semibold {differs(head) ? 'border-l-4 border-ink pl-2' : ''}">
								{head}
								{#if differs(head)}<span class="block font-normal">they differ</span>{/if}
							</th>
							{#each sources as source, nth (nth)}
								<td class={differs(head) && text(source) !== null ? 'font-semibold' : ''}>
									{#if text(source) === null}<span class="text-ink-2">does not say</span>{:else}{upperFirst(
											text(source) ?? ''
										)}{/if}
								</td>
							{/each}
						</tr>
					{/each}
				</tbody>
			</table>
		</Sideways>
	{/if}
</section>
