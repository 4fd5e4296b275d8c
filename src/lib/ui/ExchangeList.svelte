<script lang="ts">
	import type { ExplainedExchange } from '../case/codes/logExchange';

	/** Requests and answers in order; each opens to its bytes with every field named. */
	let { exchanges }: { exchanges: ExplainedExchange[] } = $props();
</script>

<ol class="mt-4">
	{#each exchanges as exchange, i (i)}
		<li class="hair">
			<details>
				<summary
					class="grid min-h-11 cursor-pointer grid-cols-[5rem_1fr] items-center gap-x-4 py-1.5 sm:grid-cols-[5rem_11rem_1fr_1fr]"
				>
					<span class="num text-right">{exchange.time}</span>
					<span class="num text-sm text-ink-2">{exchange.route}</span>
					<span class="max-sm:col-start-2">{exchange.asked}</span>
					<span class="max-sm:col-start-2 {exchange.refused ? 'font-semibold' : ''}">{exchange.outcome}</span>
				</summary>
				<div class="pb-3 sm:pl-24">
					{#each exchange.messages as message, nth (nth)}
						<p class="pt-2 text-sm font-semibold">{message.direction}</p>
						<dl>
							{#each message.fields as { from, bytes, name, text }, nth (nth)}
								<div class="grid grid-cols-[2.5rem_minmax(7rem,14rem)_1fr] gap-x-4 py-0.5 text-sm">
									<dt class="num text-right text-ink-2">{from}</dt>
									<dd class="num [overflow-wrap:anywhere]">{bytes}</dd>
									<dd><span class="text-ink-2">{name}:</span> {text}</dd>
								</div>
							{/each}
						</dl>
					{/each}
				</div>
			</details>
		</li>
	{:else}
		<li class="hair py-3">Nothing was asked and answered here.</li>
	{/each}
</ol>
