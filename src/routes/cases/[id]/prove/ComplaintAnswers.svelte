<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import AnswerThing from './AnswerThing.svelte';
	import type { PageData } from './$types';

	/** What the customer said, each thing with what came of it: the complaint is proven like a code. */
	let { data }: { data: PageData } = $props();
	const mayAnswer = $derived(data.canWrite && !data.case.signed);
	const stateOf = ({ settled, answer }: PageData['complaint'][number]) =>
		settled ? 'good' : answer?.how === 'shows-again' ? 'bad' : 'open';
</script>

<section id="complaint-answers" aria-labelledby="complaint-title" class="mt-4 border-t border-rule pt-4">
	<h2 id="complaint-title" class="font-bold">What the customer said</h2>
	<ul class="mt-1">
		{#each data.complaint as one (one.key)}
			<li class="hair py-2">
				<div class="flex items-start gap-3">
					<span class="mt-1"><Mark state={stateOf(one)} size={20} /></span>
					<div class="min-w-0 flex-1">
						<p class="text-lg leading-tight font-semibold">{one.words}</p>
						<p class="text-ink-2">
							{#if one.answer}{one.answer.said}{one.answer.why ? `: ${one.answer.why}` : ''}
								<span class="num">({one.answer.by}, {one.answer.time})</span>
							{:else}not tried yet{/if}
						</p>
						{#if mayAnswer}<AnswerThing {one} {data} />{/if}
					</div>
				</div>
			</li>
		{/each}
	</ul>
</section>
