<script lang="ts">
	import AgreedLine from '$lib/ui/AgreedLine.svelte';
	import Act from '$lib/ui/Act.svelte';
	import { goOn } from '../../../../goOn';
	import { refreshCase } from '$lib/ui/refresh';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { hourWords } from '$lib/case/progress/floorWords';
	import { lowerFirst, upperFirst } from '$lib/case/words';
	import Field from '$lib/ui/Field.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import { sendEntry } from '$lib/away/record';
	import MendNav from '../MendNav.svelte';
	import { shown } from '$lib/ui/units';
	import Sideways from '$lib/ui/Sideways.svelte';

	let { data } = $props();
	let picked = $state<string | null>(null);
	let because = $state('');
	let entryId = $state(ulid());
	let saving = $state(false);
	const keyOf = (way: { kind: string; place: string }) => `${way.kind}@${way.place}`;
	const chosen = $derived(
		data.ways?.find((way) => keyOf(way) === (picked ?? (data.chosen ? keyOf(data.chosen) : ''))) ?? null
	);
	const best = $derived(data.ways?.[0] ?? null);
	const ANSWER = {
		yes: 'Yes: this shop can finish it',
		partly: 'Partly: it can be mended here, and something afterwards is done elsewhere',
		sublet: 'Not to be begun here: something is missing that it cannot be begun without'
	} as const;
	const percent = (p: number) => `${(100 * p).toFixed(p < 0.1 ? 1 : 0)} %`;
	const headline = $derived(
		!chosen
			? 'Nothing is suspected yet that could be mended'
			: `${upperFirst(chosen.name)}: can our shop do this?`
	);
	const hrefWith = (way: { kind: string; place: string }, harsh = data.harsh) =>
		`?does=${way.kind}&place=${way.place}${harsh ? '' : '&harsh=no'}`;

	async function save() {
		if (!chosen || saving || !data.ways) return;
		saving = true;
		const { kind, place, calibrates } = chosen;
		const done = await sendEntry(
			data.case.id,
			'repair-planned',
			{
				repair: chosen.kind,
				place: chosen.place,
				title: upperFirst(chosen.name),
				answer: chosen.answer,
				missing: chosen.missing.map(({ function: id, words, for: what }) => ({
					function: id,
					words,
					for: what
				})),
				instead: data.ways
					.filter((way) => way !== chosen)
					.map((way) => ({
						repair: way.kind,
						title: upperFirst(way.name),
						expectedMinutes: Math.round(way.expectedMinutes)
					})),
				expectedMinutes: Math.round(chosen.expectedMinutes),
				because: because.trim()
			},
			entryId
		);
		saving = false;
		if (!done) return;
		entryId = ulid();
		if (done === 'stored') toast.success('The choice is on the thread.');
		await refreshCase();
		const mend = `/cases/${data.case.id}/mend`;
		void goOn(calibrates ? `${mend}/calibrate` : `${mend}?does=${kind}&place=${place}`);
	}
</script>

<svelte:head><title>{data.case.number} Before it begins · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">{headline}</h1>
	{#if chosen}
		<p class="mt-1 flex items-start gap-3 text-lg">
			<span class="mt-1"
				><Mark
					state={chosen.answer === 'yes' ? 'good' : chosen.answer === 'partly' ? 'suspect' : 'bad'}
					size={20}
				/></span
			>{ANSWER[chosen.answer]}.
		</p>
		<p class="mt-1 text-ink-2">
			By what is known it fixes it in <span class="num">{percent(chosen.cures)}</span>{chosen.cures < 0.5
				? ': a test first may be cheaper than the part.'
				: '.'}
		</p>
	{:else}
		<p class="mt-1 text-ink-2">
			Choose a repair on Reason, or test on: what a repair needs is held against what this shop owns.
		</p>
	{/if}
	<MendNav caseId={data.case.id} here="/plan" />
	<AgreedLine words={data.openWithCustomer} href="/cases/{data.case.id}/mend/estimate" />
</section>

{#if data.ways && chosen}
	{#if chosen.missing.length > 0}
		<section class="mt-5" aria-labelledby="missing">
			<h2 id="missing" class="text-lg font-bold">What is missing</h2>
			<ul class="mt-1">
				{#each chosen.missing as one, nth (nth)}
					<li class="hair py-2">
						<strong>{upperFirst(one.words)}</strong>, for {lowerFirst(one.for)}{one.before
							? ': before it is begun'
							: ': afterwards, elsewhere'}
					</li>
				{/each}
			</ul>
		</section>
	{/if}
	{#if chosen.after.length > 0}
		<section class="mt-5" aria-labelledby="after">
			<h2 id="after" class="text-lg font-bold">What it calls for afterwards</h2>
			<p class="text-ink-2">
				Until then base brakes only: no anti-lock, no stability, no hill functions. Say so to whoever moves
				the vehicle.
			</p>
			<ol class="mt-1">
				{#each chosen.after as { name, minutes }, nth (nth)}
					<li class="hair flex justify-between gap-4 py-2">
						<span>{name}</span><span class="num">{minutes} min</span>
					</li>
				{/each}
			</ol>
		</section>
	{/if}

	<section class="mt-6" aria-labelledby="ways">
		<h2 id="ways" class="text-lg font-bold">
			{data.ways.length > 1 ? 'The ways to mend it' : 'The one way to mend it'}
		</h2>
		<p class="text-ink-2">
			In minutes of work, money counted in, and the second visit as often as it comes{data.odometerKm === null
				? ''
				: ` at ${shown(data.odometerKm, 'distance')}`}.
			<a class="underline underline-offset-4" href={hrefWith(chosen, !data.harsh)} data-sveltekit-noscroll
				>{data.harsh ? 'In salt and sand: count it as dry' : 'Counted as dry: it works in salt and sand'}</a
			>
		</p>
		<Sideways label="The ways to mend it" class="mt-2">
			<table class="w-full min-w-[680px] border-collapse text-left">
				<thead class="border-b-2 border-ink text-sm">
					<tr class="[&>th]:pr-4 [&>th]:pb-2 [&>th]:font-semibold">
						<th>Way</th><th class="text-right">Now</th><th class="text-right">Price</th><th class="text-right"
							>Back in a year</th
						><th class="text-right">In all</th><th>Here</th>
					</tr>
				</thead>
				<tbody>
					{#each data.ways as way, nth (nth)}
						<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4">
							<td>
								<label class="flex min-h-11 cursor-pointer items-center gap-3">
									<input
										type="radio"
										class="radio"
										name="way"
										checked={way === chosen}
										onchange={() => (picked = keyOf(way))}
									/>
									<span
										><span class="font-semibold">{upperFirst(way.name)}</span>{way.temporary
											? ', temporary'
											: ''}{#if way.why}<span class="block text-sm text-ink-2">{way.why}</span>{/if}</span
									>
								</label>
							</td>
							<td class="num pt-4! text-right whitespace-nowrap"
								>{Math.round(way.minutesNow)} min{#if way.accessDone > 0}<span
										class="block text-sm text-ink-2">{Math.round(way.accessDone)} done</span
									>{/if}</td
							>
							<td class="num pt-4! text-right">{way.price}</td>
							<td class="num pt-4! text-right">{percent(way.comesBack)}</td>
							<td class="num pt-4! text-right font-bold whitespace-nowrap"
								>{hourWords(way.expectedMinutes)}</td
							>
							<td class="pt-4!">{way.answer === 'yes' ? 'yes' : way.answer === 'partly' ? 'partly' : 'no'}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		</Sideways>
	</section>

	{#if data.canWrite && !data.case.signed}
		<section class="mt-5" id="plan">
			<Field
				label={chosen === best
					? 'Why this one (if there is more to say)'
					: 'Why this one, and not the one that costs least?'}
				><textarea
					class="field"
					rows="2"
					maxlength="2000"
					bind:value={because}
					placeholder="mileage, how it is used, what the customer wants"></textarea></Field
			>
			<div class="mt-3 flex flex-wrap items-center gap-4">
				<Act
					data-do
					class="act"
					disabled={saving}
					whyNot={chosen !== best && because.trim() === '' ? 'Say why this one.' : null}
					onclick={save}>Choose it</Act
				>
				<a
					class="inline-flex min-h-11 items-center underline underline-offset-4"
					href="/cases/{data.case.id}/mend/estimate?does={chosen.kind}&place={chosen.place}"
					>What it would cost</a
				>
				{#if chosen !== best && because.trim() === ''}<span>A reason goes with it: it is evidence later.</span
					>{/if}
			</div>
		</section>
	{/if}
	{#if data.suspected.length > 1}
		<section class="mt-6 border-t border-rule pt-4" aria-labelledby="others">
			<h2 id="others" class="font-bold">Others that are suspected</h2>
			<ul>
				{#each data.suspected as other, nth (nth)}
					<li>
						<a
							class="inline-flex min-h-11 items-center gap-3 underline underline-offset-4"
							href={hrefWith(other)}
							onclick={() => (picked = null)}
							><span class="num">{percent(other.ends)}</span>{upperFirst(other.name)}</a
						>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
{/if}
{#if data.last}
	<p class="mt-6 border-t border-rule pt-4 text-ink-2">
		Chosen <span class="num">{data.last.time}</span> by {data.last.by}: {lowerFirst(data.last.title)}{data
			.last.because
			? ` – ${data.last.because}`
			: ''}
	</p>
{/if}
