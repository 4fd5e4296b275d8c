<script lang="ts">
	import type { StationState } from '../case/progress/stations';

	/** The eight stations across the top of a case, each with what it still lacks. */
	let { stations, here, caseId }: { stations: StationState[]; here: string | null; caseId: string } =
		$props();
	let line: HTMLElement;
	// On a phone the line is longer than the screen: where one is stands in the middle.
	$effect(() => {
		void here;
		const active = line.querySelector<HTMLElement>('[aria-current]');
		if (active) line.scrollLeft = active.offsetLeft - (line.clientWidth - active.offsetWidth) / 2;
	});
</script>

<nav bind:this={line} aria-label="Stations" class="no-print relative overflow-x-auto border-b border-rule">
	<ol class="flex justify-between px-4 lg:grid lg:grid-cols-8 lg:px-5">
		{#each stations as station, i (station.id)}
			{@const active = station.id === here}
			<li>
				<a
					href="/cases/{caseId}/{station.id}"
					aria-current={active ? 'page' : undefined}
					class="flex min-h-[62px] items-start gap-1.5 px-1.5 pt-[10px] pb-1 lg:gap-2 lg:px-2 {active
						? 'border-b-4 border-ink'
						: ''}"
				>
					<span
						class="num mt-px flex size-[22px] shrink-0 items-center justify-center rounded-full text-sm
						{active
							? 'bg-neutral text-neutral-content'
							: station.state === 'done'
								? 'bg-good text-success-content'
								: 'border-[1.5px] border-ink-2 text-ink-2'}"
					>
						{i + 1}
					</span>
					<span class="min-w-0">
						<span
							class="block leading-[24px] font-semibold whitespace-nowrap {active || station.state === 'done'
								? ''
								: 'text-ink-2'}"
						>
							{station.name}
						</span>
						{#if station.lacks}
							<span class="text-sm leading-tight text-suspect {active ? 'block' : 'hidden lg:block'}"
								>{station.lacks}</span
							>
						{/if}
					</span>
				</a>
			</li>
		{/each}
	</ol>
</nav>
