<script lang="ts">
	import type { WayToProvoke } from '$lib/case/reason/waysToProvoke';
	import { testPath } from '$lib/case/reason/testPath';

	/** The ways to make it come, in the order of what they tell a minute. */
	let {
		caseId,
		position,
		ways
	}: { caseId: string; position: string; ways: (Omit<WayToProvoke, 'exposes'> & { cautions: string })[] } =
		$props();
	const ELSEWHERE: Partial<Record<WayToProvoke['does'], string>> = {
		clear: 'Go to Prove',
		spin: 'Turn the wheels',
		road: 'Plan the drive'
	};
	const TELLS_NOW = 'little';
</script>

<section class="mt-7" aria-labelledby="ways">
	<h2 id="ways" class="text-lg font-bold">What makes it come, the most telling a minute first</h2>
	<ol class="mt-1">
		{#each ways as way, nth (nth)}
			<li class="hair py-1">
				<details>
					<summary
						class="grid min-h-11 cursor-pointer grid-cols-[1.5rem_minmax(0,1fr)_4rem] items-center gap-x-3 sm:grid-cols-[1.5rem_minmax(0,1fr)_4rem_8rem]"
					>
						<span class="num text-ink-2">{nth + 1}</span>
						<span class={way.tells === TELLS_NOW ? 'text-ink-2' : 'font-semibold'}>{way.name}</span>
						<span class="num text-right">{Math.round(way.minutes)} min</span>
						<span class="col-start-2 text-sm text-ink-2 sm:col-start-auto sm:text-right sm:text-base"
							>tells {way.tells}</span
						>
					</summary>
					<div class="pb-2 pl-9">
						<p class="text-ink-2">{way.why} It tells <span class="num">{way.bits.toFixed(2)}</span> bit.</p>
						{#if way.cautions}<p class="mt-2 border-l-4 border-ink pl-3">{way.cautions}</p>{/if}
						{#if ELSEWHERE[way.does]}<a
								class="act-quiet mt-2"
								href="/cases/{caseId}/{testPath({ kind: way.test, station: 'watch', place: position })}"
								>{ELSEWHERE[way.does]}</a
							>{/if}
					</div>
				</details>
			</li>
		{/each}
	</ol>
</section>
