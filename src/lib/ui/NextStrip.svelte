<script lang="ts">
	import { afterNavigate } from '$app/navigation';
	import type { NextStep } from '../case/progress/step';
	import { said } from './units';

	/** The one thing to do next, and why. The only thing on a page that is turmeric. */
	let { next, onstart }: { next: NextStep; onstart: () => void } = $props();
	/** Whoever has read the reason once has read it: on the next page it is told to whoever asks, on a phone always. */
	let isRead = $state(false);
	let isAsked = $state(false);
	let read = '';
	afterNavigate(() => {
		isRead = read === `${next.title} ${next.why}`;
		isAsked = false;
		read = `${next.title} ${next.why}`;
	});
</script>

<section
	aria-label="Next step"
	class="no-print flex flex-wrap items-center justify-between gap-x-6 gap-y-1 rounded-lg bg-next px-[18px] py-3 text-accent-content sm:gap-y-3 sm:py-4"
>
	<div class="min-w-0 flex-1 basis-72">
		<h2 class="text-xl leading-tight font-bold">{said(next.title)}</h2>
		<p class="mt-1 {isAsked ? '' : isRead ? 'hidden' : 'max-sm:hidden'}">{said(next.why)}</p>
		{#if !isAsked}<button
				type="button"
				class="min-h-11 cursor-pointer underline underline-offset-4 {isRead ? '' : 'sm:hidden'}"
				onclick={() => (isAsked = true)}>Why this?</button
			>{/if}
	</div>
	<button
		class="inline-flex min-h-12 cursor-pointer items-center gap-3 rounded-md bg-[#17332f] px-6 font-bold text-[#fbf7ee]"
		onclick={onstart}
	>
		Go to it <kbd class="of-keys rounded border border-[#55635c] px-2 font-mono text-sm font-normal">.</kbd>
	</button>
</section>
