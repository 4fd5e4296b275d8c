<script lang="ts">
	/** Codes that were told to us, each with whether our own readings bear it out. */
	interface Row {
		key: string;
		text: string;
		slug: string;
		title: string;
		failureType: string | null;
		module: string | null;
		state: string | null;
		values: { name: string; text: string }[];
		ours: string;
	}
	interface Group {
		entryId: string;
		title: string;
		time: string;
		by: string;
		isLog: boolean;
		rows: Row[];
	}
	const MOST_SHOWN = 20;
	let { groups, caseId }: { groups: Group[]; caseId: string } = $props();
</script>

{#snippet line(row: Row)}
	<div class="grid gap-x-6 py-1.5 sm:grid-cols-[1fr_12rem]">
		<p>
			<a
				class="num underline underline-offset-4"
				href="/codes/{row.slug}{row.slug.includes('?') ? '&' : '?'}case={caseId}">{row.text}</a
			>
			<strong class="pl-1">{row.title}</strong>
			<span class="block text-sm text-ink-2"
				>{[row.failureType, row.module, row.state, ...row.values.map((v) => `${v.name} ${v.text}`)]
					.filter(Boolean)
					.join(' · ')}</span
			>
		</p>
		<p class="sm:text-right">{row.ours}</p>
	</div>
{/snippet}

<section class="mt-8 border-t-2 border-ink pt-4" aria-labelledby="reported">
	<h2 id="reported" class="text-lg font-bold">Told to us</h2>
	{#each groups as group (group.entryId)}
		<div class="hair py-3">
			<p class="flex flex-wrap items-baseline justify-between gap-x-4">
				<span class="font-semibold">{group.title}</span>
				<span class="text-sm text-ink-2"><span class="num">{group.time}</span> by {group.by}</span>
			</p>
			{#each group.rows.slice(0, MOST_SHOWN) as row (row.key)}{@render line(row)}{/each}
			{#if group.rows.length > MOST_SHOWN}
				<details>
					<summary class="inline-flex min-h-11 cursor-pointer items-center underline underline-offset-4"
						>{group.rows.length - MOST_SHOWN} more</summary
					>
					{#each group.rows.slice(MOST_SHOWN) as row (row.key)}{@render line(row)}{/each}
				</details>
			{/if}
			{#if group.isLog}
				<a
					class="inline-flex min-h-11 items-center underline underline-offset-4"
					href="/cases/{caseId}/read/log/{group.entryId}">Every exchange, byte by byte</a
				>
				<a
					class="ml-6 inline-flex min-h-11 items-center underline underline-offset-4"
					href="/cases/{caseId}/read/find">Which modules are in it?</a
				>
			{/if}
		</div>
	{/each}
</section>
