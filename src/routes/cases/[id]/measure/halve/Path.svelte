<script lang="ts">
	import type { PointReading } from '$lib/core/electrical/halving';
	import type { PathPlace } from '$library/measurePoints';
	import Mark from '$lib/ui/Mark.svelte';
	import OnlyUsual from '../../OnlyUsual.svelte';

	/** The wire from its good end to its bad one, with what each place has read and how likely each stretch is. */
	let {
		places,
		readings,
		chances,
		next,
		fed,
		caseId
	}: {
		places: PathPlace[];
		readings: Readonly<Record<string, PointReading>>;
		chances: number[];
		next: string | null;
		fed: string;
		caseId: string;
	} = $props();
	/** Up to the last good place the wire is proven through; behind the fault nothing is. */
	const provenTo = $derived(chances.findIndex((chance) => chance > 0));
	const stateOf = (i: number) => {
		const place = places[i];
		const read = place ? readings[place.node] : undefined;
		if (read) return read;
		return i === 0 ? 'good' : i === places.length - 1 ? 'bad' : 'open';
	};
</script>

<ol class="mt-3" aria-label="The wire, place by place">
	{#each places as place, i (i)}
		{@const chance = chances[i] ?? 0}
		<li class="grid grid-cols-[1.75rem_minmax(0,1fr)_auto] gap-x-3">
			<span class="mt-0.5"><Mark state={stateOf(i)} size={18} /></span>
			<span
				class="col-span-2 flex flex-wrap items-baseline justify-between gap-x-4 {place.node === next
					? 'font-bold'
					: ''}"
			>
				<span>
					{place.words}{#if i === 0}<span class="text-ink-2">, {fed}</span>{/if}
					{#if place.node === next}<span class="ml-2 rounded bg-next px-2 py-0.5 text-accent-content"
							>measure here</span
						>{/if}
				</span>
				<span class="num font-normal text-ink-2"
					>{#if place.usualAccess}<OnlyUsual
							path={place.usualAccess}
							{caseId}
							says="usually {place.accessMin} min to reach"
						/>{:else}{place.accessMin} min to reach{/if}</span
				>
			</span>
			{#if i < places.length - 1}
				<span class="flex min-h-8 py-0.5 pl-[7px]">
					<span
						class={i < provenTo
							? 'border-l-4 border-good'
							: chance > 0
								? 'border-l-[3px] border-dotted border-ink'
								: 'border-l-[3px] border-dotted border-rule'}
					></span>
				</span>
				<span class="flex items-center text-sm text-ink-2">
					{#if place.contactNext}contact{:else}<span
							>{place.toNextM || places[i + 1]?.toNextM || ''} m of {place.colour ?? ''} wire{#if place.untoldColour},
								<OnlyUsual path={place.untoldColour} {caseId} says="colour not told yet" />{/if}</span
						>{/if}
				</span>
				<span class="num flex items-center justify-end text-sm text-ink-2"
					>{chance > 0 ? `${(100 * chance).toFixed(0)} % here` : ''}</span
				>
			{/if}
		</li>
	{/each}
</ol>
