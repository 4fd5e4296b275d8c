<script lang="ts">
	import { goOn } from '../../../goOn';
	import Act from '$lib/ui/Act.svelte';
	import { upperFirst } from '$lib/case/words';
	import { goto, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { toast } from 'svelte-sonner';
	import Caution from '$lib/ui/Caution.svelte';
	import PathLine from '$lib/ui/PathLine.svelte';
	import { sendEntry } from '$lib/away/record';
	import { notedCode } from '../../../decoderClient';
	import Judge from './Judge.svelte';
	import Sources from './Sources.svelte';
	import StatusBits from './StatusBits.svelte';

	let { data } = $props();
	const { answer, decoded } = $derived(data);
	const DEFINED = {
		standard: 'a standard code',
		maker: 'the maker’s own code',
		reserved: 'a reserved number'
	};
	const kind = $derived(
		[
			decoded.definedBy ? DEFINED[decoded.definedBy] : null,
			decoded.system,
			decoded.corner?.replace('-', ' ') ?? null,
			decoded.kind === 'j1939' ? 'heavy vehicle code' : null,
			decoded.kind === 'own' ? 'in its own notation' : null
		].filter((part) => part !== null)
	);
	let target = $state('');
	let adding = $state(false);
	async function add(caseId: string, number: string) {
		const noted = await notedCode(data.written);
		if (!noted || caseId === '') return;
		adding = true;
		const done = await sendEntry(caseId, 'codes-reported', noted);
		adding = false;
		if (!done) return;
		if (done === 'stored') toast.success(`${answer.text} is noted on ${number}.`);
		await goOn(`/cases/${caseId}/read`);
	}
	function speakFor(maker: string) {
		const kept = [...page.url.searchParams].filter(([name]) => name !== 'maker');
		const query = new URLSearchParams(maker ? [...kept, ['maker', maker]] : kept).toString();
		void goto(`?${query}`, { noScroll: true, keepFocus: true });
	}
</script>

<svelte:head><title>{answer.text} · Jaldi</title></svelte:head>
<header class="flex flex-wrap items-start justify-between gap-x-8 gap-y-3">
	<div class="min-w-0 flex-1 basis-96">
		<h1 class="text-2xl leading-tight font-bold">
			<span class="num pr-2 font-normal">{answer.text}</span>
			{answer.title}
		</h1>
		<p class="mt-1 text-lg text-ink-2">
			{upperFirst(kind.join(', '))}{data.lamps.length > 0 ? `; lights ${data.lamps.join(', ')}` : ''}.
		</p>
	</div>
	{#if data.here}
		<div class="flex flex-wrap items-center gap-3">
			<a class="act-quiet" href="/cases/{data.here.id}/read">Back to {data.here.number}</a>
			{#if data.here.canAdd}
				<button class="act" disabled={adding} onclick={() => add(data.here!.id, data.here!.number)}
					>Add to {data.here.number}</button
				>
			{/if}
		</div>
	{:else if data.openCases.length > 0}
		<div class="flex flex-wrap items-center gap-3">
			<select class="field w-auto!" bind:value={target} aria-label="Case to add it to">
				<option value="">Add it to a case …</option>
				{#each data.openCases as { id, text } (id)}<option value={id}>{text}</option>{/each}
			</select>
			<Act
				class="act"
				disabled={adding}
				whyNot={target === '' ? 'Choose a case.' : null}
				onclick={() => add(target, data.openCases.find((c) => c.id === target)?.text ?? 'the case')}>Add</Act
			>
		</div>
	{/if}
</header>

{#if data.path}
	<section class="mt-6" aria-label="Signal path">
		<PathLine links={data.path.links} named={data.path.named} />
		<p class="mt-2 text-ink-2">
			The code names the circuit at the marked links. Any link of the line can be the fault, and none is
			proven by the code.
		</p>
	</section>
{/if}

<div class="mt-6 grid gap-x-12 gap-y-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
	<div>
		{#if data.olderNumbers}
			<p class="mb-4 border-l-4 border-ink pl-3 text-lg">
				<strong>Conversion bit 1.</strong> The sender may write parameter numbers in an older order of bits:
				SPN <span class="num">{decoded.spn}</span> as it stands, or
				<span class="num">{data.olderNumbers[0]}</span>, or <span class="num">{data.olderNumbers[1]}</span>.
				The maker’s list tells which.
			</p>
		{/if}
		{#if answer.failureType}
			<section aria-labelledby="suffix">
				<h2 id="suffix" class="text-lg font-bold">
					{#if decoded.failureTypeByte}<span class="pr-1"
							>Suffix <span class="num font-normal">{decoded.failureTypeByte}</span>:</span
						>{/if}{decoded.failureTypeByte ? answer.failureType : upperFirst(answer.failureType)}
				</h2>
				<p class="mt-1 text-lg">{answer.meaning}</p>
				<p class="mt-2 border-l-4 border-ink pl-3"><strong>Check first.</strong> {answer.checkFirst}</p>
				{#if data.category}<p class="mt-2 text-sm text-ink-2">One of the {data.category}.</p>{/if}
			</section>
		{:else if decoded.kind === 'dtc'}
			<p class="text-ink-2">
				Without a suffix the code does not say how it failed. With one – {answer.text}-13, for example – this
				page says what it means and what to check first.
			</p>
		{/if}
		{#if data.status}<StatusBits status={data.status} state={answer.state ?? ''} />{/if}
	</div>
	<section aria-labelledby="written">
		<h2 id="written" class="font-bold">Written as</h2>
		<ul class="num mt-1">
			{#each data.spellings as text, nth (nth)}<li class="hair py-1">{text}</li>{/each}
		</ul>
	</section>
</div>

{#if data.cautions}<Caution
		>{data.cautions} The maker’s procedure and local law come first; safety-critical work is for qualified people.</Caution
	>{/if}

{#if data.number}
	<Sources
		sources={data.sources}
		disagreements={data.disagreements}
		maker={data.maker}
		makers={data.makers}
		isMakers={decoded.definedBy === 'maker'}
		onmaker={speakFor}
	/>
	{#if decoded.kind === 'dtc' && data.here?.canAdd && data.sources.length > 1}
		<Judge
			code={decoded.code}
			failureType={decoded.failureTypeByte}
			sources={data.sources}
			judged={data.here.judged}
			here={data.here}
			onjudged={() => void invalidateAll()}
		/>
	{/if}
{/if}

{#if data.number}
	<section class="mt-8 border-t-2 border-ink pt-4" aria-labelledby="had-it">
		<h2 id="had-it" class="text-lg font-bold">
			{data.cases.length === 0
				? 'No case of this shop had it yet'
				: data.cases.length === 1
					? 'One case of this shop had it'
					: `${data.cases.length} cases of this shop had it`}
		</h2>
		<ul class="mt-2">
			{#each data.cases as one (one.id)}
				<li class="hair grid items-baseline gap-x-4 py-2 sm:grid-cols-[6rem_1fr_1fr]">
					<a class="num inline-flex min-h-11 items-center underline underline-offset-4" href="/cases/{one.id}"
						>{one.number}</a
					>
					<span
						>{one.vehicle}{#if one.failureTypes.length > 0}<span class="text-ink-2"
								>, suffix {one.failureTypes.join(', ')}</span
							>{/if}</span
					>
					<span>
						{#if one.repairs.length > 0}<strong>{one.repairs.join('; ')}</strong>{one.proven
								? ', proven clear'
								: ', not proven yet'}{:else}<span class="text-ink-2">nothing mended yet</span>{/if}
					</span>
				</li>
			{/each}
		</ul>
	</section>
	<section class="mt-8 border-t-2 border-ink pt-4" aria-labelledby="own-words">
		<div class="flex flex-wrap items-baseline justify-between gap-4">
			<h2 id="own-words" class="text-lg font-bold">
				{data.versions.length === 0 ? 'This shop has no words of its own on it' : 'What this shop wrote'}
			</h2>
			{#if data.mayEdit}
				<a class="act-quiet" href="/codes/{data.slug}/write"
					>{data.versions.length === 0 ? 'Write the shop’s own words' : 'Write a new version'}</a
				>
			{/if}
		</div>
		<ol class="mt-1">
			{#each data.versions as version, nth (nth)}
				<li class="hair py-2 {version.current ? '' : 'text-ink-2'}">
					<strong>{version.definition.title}</strong>
					{version.definition.failureType
						? decoded.kind === 'own'
							? `(${answer.failureType})`
							: `(suffix ${version.definition.failureType})`
						: ''} · version {version.version}{version.current ? '' : ', replaced'}
					<span class="block text-sm text-ink-2"
						>{version.authorName}, {version.createdAt.slice(0, 10)}: {version.why}</span
					>
				</li>
			{/each}
		</ol>
	</section>
{/if}
