<script lang="ts">
	import Mark from '$lib/ui/Mark.svelte';
	import { said } from '$lib/ui/units';

	/** What was recorded on this case, newest first; two of them can be laid over each other. */
	let {
		recordings,
		caseId
	}: {
		recordings: {
			id: string;
			time: string;
			by: string;
			name: string;
			fileName: string | null;
			durationS: number;
			rateHz: number;
			verdict: string;
			endedBecause: string | null;
			findings: number;
		}[];
		caseId: string;
	} = $props();
	const span = (seconds: number) =>
		seconds < 60
			? `${seconds.toFixed(0)} s`
			: `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;
</script>

{#if recordings.length > 0}
	<section class="mt-8" aria-labelledby="recordings">
		<h2 id="recordings" class="text-lg font-bold">Recordings</h2>
		<ul>
			{#each recordings as one (one.id)}
				<li class="hair">
					<a class="flex items-start gap-3 py-3" href="/cases/{caseId}/watch/{one.id}">
						<span class="mt-1"><Mark state={one.findings > 0 ? 'suspect' : 'good'} /></span>
						<span class="min-w-0 flex-1">
							<span class="font-semibold underline underline-offset-4"
								>{one.name || one.fileName || 'Live recording'}</span
							>
							<span class="text-ink-2">
								{span(one.durationS)} at <span class="num">{one.rateHz.toFixed(0)}</span> a second, by {one.by}
							</span>
							<span class="block">{said(one.verdict)}</span>
							{#if one.endedBecause}<span class="block text-suspect">{one.endedBecause}</span>{/if}
						</span>
						<span class="num text-ink-2">{one.time}</span>
					</a>
				</li>
			{/each}
		</ul>
	</section>
{/if}
