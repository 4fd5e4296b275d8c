<script lang="ts">
	import { enhance } from '$app/forms';
	import { upperFirst } from '$lib/case/words';
	import Sideways from '$lib/ui/Sideways.svelte';
	import Tick from '$lib/ui/Tick.svelte';

	let { data, form } = $props();
	interface NumberRow {
		id: string;
		name: string;
		aside: string;
		library: string;
		fields: { name: string; label: string; value: number; library: number }[];
	}
	const sections = $derived<{ id: string; title: string; rows: NumberRow[] }[]>([
		{
			id: 'tests',
			title: 'Minutes of tests',
			rows: data.tests.map(({ id, name, library, minutes, timed }) => ({
				id,
				name,
				aside: timed ? `timed here ${timed.times} ×, ${timed.mean.toFixed(1)} min` : '',
				library: String(library),
				fields: [{ name: `test/${id}`, label: `Minutes: ${name}`, value: minutes, library }]
			}))
		},
		{
			id: 'repairs',
			title: 'Minutes and prices of repairs',
			rows: data.repairs.map(({ id, name, part, library, minutes, price }) => ({
				id,
				name: upperFirst(name),
				aside: part ? 'a part' : '',
				library: `${library.minutes} min, ${library.price}`,
				fields: [
					{
						name: `repair/${id}/minutes`,
						label: `Minutes: ${name}`,
						value: minutes,
						library: library.minutes
					},
					{ name: `repair/${id}/price`, label: `Price: ${name}`, value: price, library: library.price }
				]
			}))
		},
		{
			id: 'odds',
			title: 'How often each fault is met, against one that is usual',
			rows: data.odds.map(({ id, name, link, library, weight }) => ({
				id,
				name: upperFirst(name),
				aside: link.replace('-', ' '),
				library: String(library),
				fields: [{ name: `odds/${id}`, label: `Odds: ${name}`, value: weight, library }]
			}))
		}
	]);
	/** Which of them is before somebody; what is searched for is found in all. */
	let here = $state('tests');
	let words = $state('');
	let onlyOurs = $state(false);
	const isOurs = ({ fields }: NumberRow) => fields.some((field) => field.value !== field.library);
	const wanted = (row: NumberRow): boolean =>
		(!onlyOurs || isOurs(row)) &&
		words
			.toLowerCase()
			.split(/\s+/)
			.every((word) => `${row.name} ${row.aside}`.toLowerCase().includes(word));
	const looking = $derived(words.trim() !== '' || onlyOurs);
	const found = $derived(
		sections.map(({ id, rows }) => ({ id, rows: new Set(rows.filter(wanted).map((row) => row.id)) }))
	);
	const foundIn = (id: string) => found.find((one) => one.id === id)?.rows ?? new Set<string>();
	const changed = $derived(
		sections.flatMap(({ rows }) => rows.flatMap(({ fields }) => fields)).filter((f) => f.value !== f.library)
			.length
	);
</script>

<svelte:head><title>Reasoning numbers · Jaldi</title></svelte:head>
<h1 class="text-2xl leading-tight font-bold">
	{changed === 0
		? 'All numbers are the library’s own'
		: `${changed} ${changed === 1 ? 'number is' : 'numbers are'} this shop’s own`}
</h1>
<p class="mt-1 text-lg text-ink-2">
	What tests and repairs take, and how often one fault is met against another. A lead changes them; what the
	shop has timed and proven counts on top. State <span class="num">{data.version}</span>.
</p>
{#if form?.error}<p class="mt-3 border-l-4 border-ink pl-4 font-semibold" role="alert">{form.error}</p>{/if}
{#if form?.saved}<p class="mt-3" role="status">Saved as state <span class="num">{form.saved}</span>.</p>{/if}

<form
	method="POST"
	action="?/save"
	use:enhance={() =>
		({ update }) =>
			update({ reset: false })}
	class="mt-4"
>
	<input type="hidden" name="version" value={data.version} />
	<div class="flex flex-wrap items-end gap-x-6 gap-y-2">
		<label class="min-w-60"
			><span class="text-ink-2">Find a test, a repair or a fault</span><input
				class="field"
				type="search"
				bind:value={words}
			/></label
		>
		<Tick words="only this shop’s own numbers" checked={onlyOurs} onchange={(on) => (onlyOurs = on)} />
	</div>
	<div class="mt-2 flex flex-wrap gap-x-5" role="group" aria-label="Which numbers">
		{#each sections as { id, title, rows } (id)}
			<button
				type="button"
				class="inline-flex min-h-11 cursor-pointer items-center {here === id && !looking
					? 'border-b-4 border-ink pt-1 font-bold'
					: 'text-ink-2'}"
				aria-pressed={here === id && !looking}
				onclick={() => {
					here = id;
					words = '';
					onlyOurs = false;
				}}>{title} ({looking ? foundIn(id).size : rows.length})</button
			>
		{/each}
	</div>
	{#each sections as section (section.id)}
		<!-- What is not shown is sent with the rest: it is one set of numbers. -->
		<section
			aria-labelledby={section.id}
			class="mt-5"
			hidden={looking ? foundIn(section.id).size === 0 : here !== section.id}
		>
			<h2 id={section.id} class={looking ? 'text-lg font-bold' : 'sr-only'}>{section.title}</h2>
			<Sideways label={section.title}>
				<table class="w-full max-w-4xl min-w-[560px] text-left">
					<tbody>
						{#each section.rows as row (row.id)}
							<tr class="hair [&>td]:py-1 [&>td]:pr-4" hidden={looking && !foundIn(section.id).has(row.id)}>
								<td>{row.name}</td>
								<td class="text-ink-2">{row.aside}</td>
								<td class="num text-right whitespace-nowrap text-ink-2">library {row.library}</td>
								{#each row.fields as field, nth (nth)}
									<td class="w-28 text-right"
										><input
											class="field num w-24 text-right {field.value === field.library ? '' : 'font-bold'}"
											name={field.name}
											value={field.value}
											inputmode="decimal"
											aria-label={field.label}
											readonly={!data.mayEdit}
										/></td
									>
								{/each}
							</tr>
						{/each}
					</tbody>
				</table>
			</Sideways>
		</section>
	{/each}
	{#if looking && found.every(({ rows }) => rows.size === 0)}<p class="mt-4">Nothing is called so.</p>{/if}
	{#if data.mayEdit}<button class="act mt-4">Save these numbers</button>{/if}
</form>

<section class="mt-8 border-t border-rule pt-4" aria-labelledby="apart">
	<h2 id="apart" class="text-lg font-bold">Which faults can no test tell apart?</h2>
	<form class="mt-2 flex flex-wrap items-end gap-3">
		<label
			><span class="text-ink-2">Vehicle</span>
			<select class="field" name="vehicle" value={data.checked?.id ?? data.vehicles[0]?.id}>
				{#each data.vehicles as { id, name } (id)}<option value={id}>{name}</option>{/each}
			</select></label
		>
		<button class="act-quiet">Check it</button>
	</form>
	{#if data.checked}
		<p class="mt-2">
			{data.checked.pairs.length === 0
				? 'Every fault is told apart from every other at its place by some test.'
				: `${data.checked.pairs.length} pairs are not told apart; where one repair cures both it does not matter.`}
		</p>
		<ul>
			{#each data.checked.pairs as pair, i (i)}
				<li class="hair py-1">
					{upperFirst(pair.where)}: {pair.a} / {pair.b}
					<span class="text-ink-2"
						>{pair.sameRepair ? 'one repair cures both' : 'the repairs differ: only a repair tells'}</span
					>
				</li>
			{/each}
		</ul>
	{/if}
</section>
