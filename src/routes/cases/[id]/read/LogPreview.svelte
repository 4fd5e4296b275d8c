<script lang="ts">
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { hexByte } from '$lib/core/bytes';
	import { statusPhrase } from '$lib/core/codes/status';
	import { titlesOf } from '../../../decoderClient';

	/** What a frame log holds, before it is saved. */
	let {
		log,
		saving,
		onsave,
		ondrop
	}: { log: PayloadOf<'frame-log'>; saving: boolean; onsave: () => void; ondrop: () => void } = $props();
	let titles = $state<Record<string, string>>({});
	const plural = (n: number, one: string) => `${n.toLocaleString('en-GB')} ${one}${n === 1 ? '' : 's'}`;
	const told = $derived([
		...log.modules.map((module) => ({
			from: `Module ${module.responseId}`,
			codes: module.codes.map((code) => ({
				text: code.failureType ? `${code.code}-${code.failureType}` : code.code,
				state: code.status === null ? '' : `${statusPhrase(code.status)} (${hexByte(code.status)})`
			}))
		})),
		...log.broadcasts.map((broadcast) => ({
			from: `Sender ${broadcast.source}, to all`,
			codes: broadcast.codes.map(({ spn, fmi, occurrences }) => ({
				text: `SPN ${spn} FMI ${fmi}`,
				state: occurrences === null ? '' : `${occurrences} times`
			}))
		}))
	]);
	const count = $derived(told.reduce((sum, one) => sum + one.codes.length, 0));
	$effect(() => {
		titlesOf([...new Set(told.flatMap((one) => one.codes.map((code) => code.text)))]).then(
			(came) => (titles = came),
			() => undefined
		);
	});
</script>

<section class="mt-4" aria-label="What was understood">
	<h3 class="text-lg font-bold">
		{plural(log.frames, 'frame')} in {log.durationS.toFixed(1)} s, {plural(log.exchangeCount, 'exchange')}, {plural(
			count,
			'code'
		)}
	</h3>
	<div class="mt-2 grid gap-x-8 gap-y-4 xl:grid-cols-2">
		<div>
			{#each told as { from, codes }, nth (nth)}
				<div class="hair py-2">
					<p class="font-semibold">{from}{codes.length === 0 ? ': no codes' : ''}</p>
					{#each codes as code, nth (nth)}
						<p class="py-1">
							<span class="num">{code.text}</span> <strong class="pl-1">{titles[code.text] ?? ''}</strong>
							<span class="block text-sm text-ink-2">{code.state}</span>
						</p>
					{/each}
				</div>
			{:else}<p>No module tells a code in it. The exchanges can be kept all the same.</p>{/each}
		</div>
		<div>
			<p class="font-semibold">
				{log.problemCount + log.badLineCount === 0
					? 'Everything in it could be put together.'
					: `${plural(log.problemCount, 'broken message')} and ${plural(log.badLineCount, 'damaged line')} were passed over; the rest is read.`}
			</p>
			<ul class="mt-1 text-sm">
				{#each log.problems.slice(0, 8) as { timeS, id, reason, detail }, i (i)}
					<li class="hair py-1">
						<span class="num">{timeS.toFixed(3)} s {id}</span> <strong>{reason}</strong>: {detail}
					</li>
				{/each}
				{#each log.badLines.slice(0, 8) as { line, reason }, nth (nth)}
					<li class="hair py-1"><span class="num">line {line}</span> {reason}</li>
				{/each}
			</ul>
			{#if log.exchangeCount > log.exchanges.length}
				<p class="mt-1 text-sm text-ink-2">
					The entry keeps the first {log.exchanges.length.toLocaleString('en-GB')} exchanges and every code.
				</p>
			{/if}
		</div>
	</div>
	<div class="mt-3 flex flex-wrap gap-3">
		<button class="act" disabled={saving} onclick={onsave}
			>{saving ? 'Saving…' : 'Save it on the thread'}</button
		>
		<button class="act-quiet" disabled={saving} onclick={ondrop}>Discard</button>
	</div>
</section>
