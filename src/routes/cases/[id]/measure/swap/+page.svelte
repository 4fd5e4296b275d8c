<script lang="ts">
	import { refreshCase } from '$lib/ui/refresh';
	import { Swap } from '$lib/case/entries/swap/payload';
	import { lowerFirst } from '$lib/case/words';
	import Act from '$lib/ui/Act.svelte';
	import Caution from '$lib/ui/Caution.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import type { Swapped, SwapOutcome } from '$library/reason/swaps';
	import { sendEntry } from '$lib/away/record';
	import BenchNav from '../BenchNav.svelte';

	let { data } = $props();
	let what = $state<Swapped>('sensors');
	let said = $state<SwapOutcome | null>(null);
	const mayWrite = $derived(data.canWrite && !data.case.signed);
	const now = $derived(data.now);
	const way = $derived(data.ways.find((one) => one.what === (now?.what ?? what)) ?? data.ways[0]);
	const here = $derived(lowerFirst(data.atWords));
	const there = $derived(lowerFirst(now?.withWords ?? way?.withWords ?? ''));
	const outcome = $derived(said ?? data.shows);
	const NAMES = $derived<Record<Swapped, string>>({
		sensors: `The sensors of ${here} and ${lowerFirst(data.ways.find((one) => one.what === 'sensors')?.withWords ?? 'its mate')}`,
		wheels: `The wheels of ${here} and ${lowerFirst(data.ways.find((one) => one.what === 'wheels')?.withWords ?? 'the other axle')}`,
		module: `${data.module}, for one that is known to be good`
	});
	const HOW: Record<Swapped, string> = {
		sensors:
			'Both sensors out, each into the bore of the other, each on the plug that is there. The same turn of the wheel before and after.',
		wheels:
			'Each wheel to the place of the other, pressures set for where they stand now. The same road before and after.',
		module: 'Only where the maker lets a module be tried without coding it for good; the old one goes back.'
	};
	const SAYS = $derived<Record<SwapOutcome, string>>({
		moved: now?.with ? `It went with the part, to ${there}` : 'It went with the part',
		stayed: `It stayed at ${here}`,
		gone: 'It is gone'
	});
	const outcomes = $derived<SwapOutcome[]>(now?.with ? ['moved', 'stayed', 'gone'] : ['stayed', 'gone']);
	async function write(state: 'swapped' | 'back') {
		if (!way) return;
		const payload = Swap.parse({
			what: way.what,
			position: data.at,
			with: way.with,
			state,
			outcome: state === 'back' ? outcome : null
		});
		if (!(await sendEntry(data.case.id, 'swap', payload))) return;
		said = null;
		await refreshCase();
	}
</script>

<svelte:head><title>{data.case.number} Swap · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl leading-tight font-bold">
		{now
			? `Swapped at ${here}: does the fault go with the part?`
			: `Does the fault of ${here} go with a part?`}
	</h1>
	<BenchNav {data} here="/swap" />
</section>

{#if way}
	<section class="mt-5" aria-labelledby="which">
		<h2 id="which" class="text-lg font-bold">{now ? NAMES[now.what] : 'What changes places'}</h2>
		{#if !now}
			<ul>
				{#each data.ways as one, nth (nth)}
					<li class="hair">
						<label class="flex min-h-12 cursor-pointer items-center gap-3 py-1">
							<input
								type="radio"
								class="radio"
								name="what"
								value={one.what}
								checked={one.what === way.what}
								onchange={() => (what = one.what)}
							/>
							<span class={one.what === way.what ? 'font-bold' : ''}>{NAMES[one.what]}</span>
						</label>
					</li>
				{/each}
			</ul>
		{/if}
		<p class="mt-2 text-lg">{HOW[way.what]}</p>
		<Caution>{way.cautions}</Caution>
	</section>

	<section class="mt-5" aria-labelledby="read">
		<h2 id="read" class="text-lg font-bold">What was read there</h2>
		{#each data.read as { words, before, since }, nth (nth)}
			<div class="hair grid gap-x-6 gap-y-1 py-2 sm:grid-cols-[9rem_minmax(0,1fr)_minmax(0,1fr)]">
				<span class="font-semibold">{words}</span>
				{#each [{ when: now ? 'before' : 'by now', list: before }, ...(now ? [{ when: 'swapped', list: since }] : [])] as { when, list }, at (at)}
					<div>
						<p class="text-sm text-ink-2">{when}</p>
						{#each list as one, i (i)}
							<p class="flex items-start gap-2">
								<span class="mt-1"><Mark state={one.bad ? 'bad' : 'good'} size={14} /></span>
								<span>{one.words}</span>
							</p>
						{:else}
							<p class="text-ink-2">nothing yet</p>
						{/each}
					</div>
				{/each}
			</div>
		{/each}
	</section>

	{#if mayWrite && !now}
		<button class="act mt-4" data-do onclick={() => write('swapped')}>They are swapped</button>
	{:else if mayWrite && now}
		<section class="mt-5" aria-labelledby="after">
			<h2 id="after" class="text-lg font-bold">What became of the fault?</h2>
			<p class="text-ink-2">
				Clear the codes on <a class="underline underline-offset-4" href="/cases/{data.case.id}/prove">Prove</a
				>
				(they are saved), do what made it fail, and
				<a class="underline underline-offset-4" href="/cases/{data.case.id}/read">read again</a> or
				<a class="underline underline-offset-4" href="/cases/{data.case.id}/watch/bay?round=hand"
					>spin the wheels</a
				>.
			</p>
			<div class="mt-2 flex flex-wrap gap-2" role="radiogroup" aria-label="What became of the fault">
				{#each outcomes as one, nth (nth)}
					<label
						class="flex min-h-12 cursor-pointer items-center gap-2 rounded-md border px-4 has-focus-visible:outline-3 {one ===
						outcome
							? 'border-ink bg-neutral text-neutral-content'
							: 'border-ink-2'}"
					>
						<input
							class="sr-only"
							type="radio"
							name="outcome"
							value={one}
							checked={one === outcome}
							onchange={() => (said = one)}
						/>
						{SAYS[one]}{one === data.shows ? ', as it was read' : ''}
					</label>
				{/each}
			</div>
			<div class="mt-4">
				<Act
					class="act"
					whyNot={outcome ? null : 'Say what became of it, or read it first.'}
					onclick={() => write('back')}>Everything is back in its place: save it</Act
				>
			</div>
			<p class="mt-2 text-ink-2">Codes that the swap sets at these wheels are marked as made by us.</p>
		</section>
	{/if}
{/if}
