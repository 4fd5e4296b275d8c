<script lang="ts">
	import type { BeforeAfter } from '$lib/case/paper/beforeAfter';
	import Mark from './Mark.svelte';
	import RingMap from './RingMap.svelte';
	import Sideways from './Sideways.svelte';

	/** The whole network as it came and as it goes, side by side; what was not there before is said first. */
	let { sides }: { sides: BeforeAfter } = $props();
	type Side = BeforeAfter['modules'][number]['after'];
	const words = (side: Side): string => {
		if (side === null) return 'not read since the clear';
		if (!side.answered) return 'silent';
		return side.codes.length === 0
			? 'no code'
			: side.codes.map(({ text, status }) => `${text}, ${status}`).join('; ');
	};
	const markOf = (side: Side) => {
		if (side === null) return 'open';
		return side.answered && side.codes.length === 0 ? 'good' : 'bad';
	};
	const lampMark = (after: string | null) =>
		after === null ? 'open' : after === 'lit and went out' ? 'good' : 'bad';
	const rings = $derived(sides.seen.filter(({ rings: { before, after } }) => before ?? after));
	const seenMark = (after: string[] | null) =>
		after === null ? 'open' : after.length === 0 ? 'good' : 'bad';
</script>

{#if sides.added.length > 0}
	<ul class="mb-3 border-l-4 border-ink pl-4 font-semibold">
		{#each sides.added as one, nth (nth)}<li>{one}</li>{/each}
	</ul>
{/if}
<Sideways label="Before and after, module by module">
	<table class="w-full text-left">
		<thead>
			<tr class="border-b-2 border-ink [&>th]:py-2 [&>th]:pr-4">
				<th>Module</th><th>as it came</th><th>as it goes</th>
			</tr>
		</thead>
		<tbody>
			{#each sides.modules as { name, before, after }, nth (nth)}
				<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4 [&>th]:py-2 [&>th]:pr-4">
					<th class="font-normal">{name}</th>
					<td class={before.codes.length > 0 ? 'num' : 'text-ink-2'}>{words(before)}</td>
					<td
						><span class="flex items-start gap-2"
							><span class="mt-1"><Mark state={markOf(after)} size={16} /></span>{words(after)}</span
						></td
					>
				</tr>
			{/each}
			{#each sides.lamps as { lamp, before, after }, nth (nth)}
				<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4 [&>th]:py-2 [&>th]:pr-4">
					<th class="font-normal">{lamp} lamp</th>
					<td>{before}</td>
					<td
						><span class="flex items-start gap-2"
							><span class="mt-1"><Mark state={lampMark(after)} size={16} /></span>{after ??
								'not watched'}</span
						></td
					>
				</tr>
			{/each}
			{#each sides.seen as { what, before, after }, nth (nth)}
				<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4 [&>th]:py-2 [&>th]:pr-4">
					<th class="font-normal">{what}</th>
					<td>{before.join('; ') || 'clean'}</td>
					<td
						><span class="flex items-start gap-2"
							><span class="mt-1"><Mark state={seenMark(after)} size={16} /></span>{after === null
								? 'not looked at since'
								: after.join('; ') || 'clean'}</span
						></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
</Sideways>
{#each rings as { what, rings: { before, after } }, nth (nth)}
	<section class="mt-4" aria-label="{what}, its ring">
		<h3 class="font-bold">{what}, its ring</h3>
		<div class="flex flex-wrap gap-x-10 gap-y-3">
			{#each [{ name: 'as it came', one: before }, { name: 'as it goes', one: after }] as { name, one } (name)}
				<div class="w-72">
					<p class="text-ink-2">{name}</p>
					{#if one}<RingMap ring={one.ring} marked={one.marked} size={280} explained={false} />
					{:else}<p class="py-3">no capture of a whole turn</p>{/if}
				</div>
			{/each}
		</div>
	</section>
{/each}
