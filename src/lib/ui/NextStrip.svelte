<script lang="ts">
	import type { NextStep } from '../case/progress/step';

	/** The one thing to do next, and why. The only thing on a page that is turmeric. */
	let { next, onstart }: { next: NextStep; onstart: () => void } = $props();
	/** On a phone the reason is told to whoever asks. */
	let told = $state(false);
</script>

<section
	aria-label="Next step"
	class="no-print flex flex-wrap items-center justify-between gap-x-6 gap-y-1 rounded-lg bg-next px-[18px] py-3 text-accent-content sm:gap-y-3 sm:py-4"
>
	<div class="min-w-0 flex-1 basis-72">
		<h2 class="text-xl leading-tight font-bold">{next.title}</h2>
		<p class="mt-1 {told ? '' : 'max-sm:hidden'}">{next.why}</p>
		{#if !told}<button
				type="button"
				class="min-h-11 cursor-pointer underline underline-offset-4 sm:hidden"
				onclick={() => (told = true)}>Why this?</button
			>{/if}
	</div>
	<button
		class="inline-flex min-h-12 cursor-pointer items-center gap-3 rounded-md bg-[#17332f] px-6 font-bold text-[#fbf7ee]"
		onclick={onstart}
	>
		Go to it <kbd class="of-keys rounded border border-[#55635c] px-2 font-mono text-sm font-normal">.</kbd>
	</button>
</section>
