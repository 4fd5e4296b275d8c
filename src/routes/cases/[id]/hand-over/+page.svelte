<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import { untrack } from 'svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import NetworkBeforeAfter from '$lib/ui/NetworkBeforeAfter.svelte';
	import AskOnce from '$lib/ui/AskOnce.svelte';
	import Mark from '$lib/ui/Mark.svelte';
	import Field from '$lib/ui/Field.svelte';

	import AddedSince from './AddedSince.svelte';
	import { addedSince } from './addedSince';
	import CloseUnproven from './CloseUnproven.svelte';
	import StandingItem from './StandingItem.svelte';
	import { shown } from '$lib/ui/units';

	let { data } = $props();
	const report = $derived(data.report);
	const CELL_WORDS = { good: 'proven good', suspect: 'suspect', open: 'not tested' } as const;
	const sign = entryForm(() => data.signForm, {
		id: 'sign-form',
		draftKey: untrack(() => `${data.case.id}:sign`)
	});
	const { form, errors, enhance, message } = sign;
	/** What stands on the thread after the entry that the lead has looked at. */
	const added = $derived(addedSince(data.case, $form.head));

	/** A signature is pressed, never slipped into. */
	function enterSignsNothing(event: KeyboardEvent) {
		if (event.key === 'Enter') event.preventDefault();
	}
</script>

<svelte:head><title>{data.case.number} Hand over · Jaldi</title></svelte:head>
<article class="paper max-w-[820px] pt-5">
	<header class="flex flex-wrap items-end justify-between gap-4 border-b-2 border-ink pb-3">
		<div>
			<p class="text-ink-2">{data.shopName} · <span class="num">{data.case.number}</span></p>
			{#if data.fromShop}<p class="mt-1 print:hidden">
					Brought in from {data.fromShop.name}: it does not count in what this shop has done. {data.fromShop
						.signed}
				</p>{/if}
			<h1 class="text-2xl leading-tight font-bold">{report.verdict}</h1>
		</div>
		<p class="text-right">
			{data.case.vehicleName}, {data.case.vehicle.nickname}<br />
			<span class="num">{data.case.vehicle.plate}</span>
			{#if report.vehicle}<br />{#if report.vehicle.vin}<span class="num">{report.vehicle.vin}</span
					>{/if}{#if report.vehicle.odometerKm !== null}, {shown(
						report.vehicle.odometerKm,
						'distance'
					)}{/if}{/if}
		</p>
	</header>

	{#if data.comeback.of}
		<p class="my-4 border-l-4 border-ink pl-4">
			A comeback of <a
				class="num underline underline-offset-4"
				href="/cases/{data.comeback.of.caseId}/hand-over">{data.comeback.of.number}</a
			>: what was done then is not taken as proven.
		</p>
	{/if}

	{#if report.signature?.left}
		<section class="my-4 border-l-4 border-ink pl-4" aria-labelledby="unproven">
			<h2 id="unproven" class="font-bold">Not proven: what stood open when it was closed</h2>
			<ul class="list-disc pl-5">
				{#each report.signature.left as open, nth (nth)}<li>{open}</li>{/each}
			</ul>
			<p class="mt-1">{report.cautions[0]}</p>
		</section>
	{/if}
	{#if report.open.length + data.standing.length > 0 && !report.signature}
		<section id="open" class="my-4 border-l-4 border-ink pl-4">
			<h2 class="font-bold">Not ready to be handed over</h2>
			<ul class="list-disc pl-5">
				{#each report.open as reason, nth (nth)}<li>{reason}</li>{/each}
			</ul>
			{#each data.standing as item, nth (nth)}
				<StandingItem {item} {data} />
			{/each}
		</section>
	{/if}

	<section class="py-3">
		<h2 class="font-bold">What brought it here</h2>
		<p class="mt-1 text-lg">
			{report.complaint.words ? `“${report.complaint.words}”` : 'No complaint is written down.'}
		</p>
		{#if report.complaint.lamps.length > 0}<p>{report.complaint.lamps.join('; ')}.</p>{/if}
		{#each report.complaint.answers as answer, nth (nth)}<p>{answer}.</p>{/each}
		{#if report.complaint.prior.length > 0}<p class="text-ink-2">
				Done before by others, and not taken as proven: {report.complaint.prior.join(', ')}.
			</p>{/if}
	</section>

	{#if report.found.length > 0}
		<section class="hair py-3" aria-labelledby="found">
			<h2 id="found" class="font-bold">What was found, and how</h2>
			{#each report.found as { title, detail, by }, i (i)}
				<p class="mt-1">{title}. <span class="text-ink-2">{detail} ({by})</span></p>
			{/each}
			{#if report.grid.columns.length > 0}
				<table class="mt-3 text-left">
					<thead>
						<tr>
							<th class="pr-4"></th>
							{#each report.grid.columns as column, nth (nth)}<th class="px-2 text-center text-sm font-normal"
									>{column}</th
								>{/each}
						</tr>
					</thead>
					<tbody>
						{#each report.grid.rows as { where, cells }, nth (nth)}
							<tr>
								<th class="pr-4 font-normal">{where}</th>
								{#each cells as state, i (i)}
									<td class="px-2 py-1 text-center" aria-label={CELL_WORDS[state]}
										><span class="inline-block"><Mark {state} size={16} /></span></td
									>
								{/each}
							</tr>
						{/each}
					</tbody>
				</table>
			{/if}
		</section>
	{/if}

	{#if report.foundGood.length > 0}
		<section class="hair py-3" aria-labelledby="good">
			<h2 id="good" class="font-bold">Tested, and as it should be</h2>
			{#each report.foundGood as { title, detail, by }, i (i)}
				<p class="mt-1">{title}. <span class="text-ink-2">{detail} ({by})</span></p>
			{/each}
		</section>
	{/if}

	<section class="hair py-3">
		<h2 class="font-bold">What was done</h2>
		{#each report.repairs as repair, i (i)}
			<p class="mt-1 text-lg">
				{repair.title}{repair.where ? `, ${repair.where}` : ''}{repair.temporary
					? ' (temporary: it has to be done again)'
					: ''}.
			</p>
			{#each repair.parts as part, nth (nth)}<p>
					Fitted: {part.name}{part.number ? `, ${part.number}` : ''} ({part.grade}).
				</p>{/each}
			{#if repair.checked}<p>{upperFirst(repair.checked)}.</p>{/if}
			{#if repair.note}<p class="text-ink-2">{repair.note}</p>{/if}
		{:else}<p class="mt-1">No repair is written down.</p>{/each}
	</section>

	{#if report.cost}
		<section class="hair py-3" aria-labelledby="cost">
			<h2 id="cost" class="font-bold">What it costs</h2>
			<dl class="mt-1 grid max-w-2xl grid-cols-[1fr_auto] gap-x-6 gap-y-1">
				{#each report.cost.lines as { what, amount }, nth (nth)}
					<dt>{what}</dt>
					<dd class="num text-right">{amount}</dd>
				{/each}
				{#each report.cost.sums as { what, amount }, nth (nth)}
					<dt class="text-ink-2">{what}</dt>
					<dd class="num text-right text-ink-2">{amount}</dd>
				{/each}
				<dt class="border-t border-ink font-bold">In all</dt>
				<dd class="num border-t border-ink text-right font-bold">{report.cost.total}</dd>
			</dl>
			<p class="mt-1">{report.cost.said}</p>
		</section>
	{/if}

	{#if report.calibrations.length > 0}
		<section class="hair py-3" aria-labelledby="taught">
			<h2 id="taught" class="font-bold">What its modules were told and taught</h2>
			{#each report.calibrations as { id, name, state, values, words } (id)}
				<p class="mt-1">
					{name}: <strong>{state}</strong>{values.length > 0 ? ` – ${values.join(', ')}` : ''}{words
						? `. ${upperFirst(words)}`
						: ''}
				</p>
			{/each}
		</section>
	{/if}

	<section class="hair py-3">
		<h2 class="font-bold">Codes, and how far each is proven</h2>
		<table class="mt-1 w-full text-left">
			<tbody>
				{#each report.codes as code (code.key)}
					<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4">
						<td class="num whitespace-nowrap">{code.text}</td>
						<td
							>{code.title}{code.failureType ? `, ${code.failureType}` : ''}<br /><span class="text-ink-2"
								>{code.modules.join(', ')}</span
							></td
						>
						<td class="w-72"
							><strong>{code.words}</strong><br /><span class="text-ink-2">{code.because}</span></td
						>
					</tr>
				{:else}
					{#each report.byLamp ?? [] as { code, words, now }, nth (nth)}
						<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4">
							<td class="num whitespace-nowrap">{code}</td>
							<td>{words}<br /><span class="text-ink-2">told by its lamp</span></td>
							<td class="w-72"><strong>{upperFirst(now)}</strong></td>
						</tr>
					{:else}<tr><td class="py-2">{report.noCodes}</td></tr>{/each}
				{/each}
			</tbody>
		</table>
		{#if report.lampCheck.length > 0}<p class="mt-2">
				Lamps at key-on: {report.lampCheck.join('; ')}.
			</p>{/if}
		{#if report.drivenKm > 0}<p>
				Driven to prove it: <span class="num">{shown(report.drivenKm, 'distance', 1)}</span>.
			</p>{/if}
	</section>

	{#if report.beforeAfter?.afterAt}
		<section class="hair py-3" aria-labelledby="sides">
			<h2 id="sides" class="mb-1 font-bold">Before and after, the whole network</h2>
			<NetworkBeforeAfter sides={report.beforeAfter} />
		</section>
	{/if}

	{#if report.residual.length + report.waivers.length > 0}
		<section class="hair py-3" aria-labelledby="left">
			<h2 id="left" class="font-bold">What is left of the risk</h2>
			{#each [...report.residual, ...report.waivers] as line, nth (nth)}<p class="mt-1">{line}</p>{/each}
		</section>
	{/if}

	<section id="sign" class="hair py-3">
		<h2 class="font-bold">Signature</h2>
		{#if report.signature}
			<p class="mt-1 text-lg">
				{report.signature.left ? 'Closed unproven, because: ' : ''}{report.signature.statement}
			</p>
			<p>{report.signature.by}, {report.signature.at}</p>
			{#each data.comeback.cases as { id, number } (id)}
				<p class="mt-2 font-semibold">
					It came back: <a class="num underline underline-offset-4" href="/cases/{id}">{number}</a>
				</p>
			{/each}
			{#if data.canWrite}
				<form method="POST" action="?/comeback" class="no-print mt-3">
					<input type="hidden" name="caseId" value={data.comeback.newId} />
					<input type="hidden" name="worksId" value={data.comeback.worksId} />
					<button class="act-quiet"
						>{report.signature.left ? 'The work goes on' : 'It came back'}: open a case that begins here</button
					>
				</form>
			{/if}
		{:else if data.maySign}
			<form method="POST" action="?/sign" use:enhance class="no-print mt-2">
				<Field label="As lead, I sign" errors={$errors.statement}
					><input
						class="field"
						bind:value={$form.statement}
						readonly={data.notBy !== null}
						onkeydown={enterSignsNothing}
					/></Field
				>
				{#if data.notBy !== null}
					<p class="mt-2">{report.proven ? data.notBy : 'It can be signed once nothing is open.'}</p>
				{:else if added.length > 0}
					<AddedSince {added} onlooked={() => ($form.head = data.case.headHash)} />
				{:else}
					{#if $message}<p role="alert" class="mt-3 border-l-4 border-ink pl-3 font-semibold">
							{$message}
						</p>{/if}
					<p class="mt-3">
						<AskOnce
							next
							class="act"
							label="Sign and close the case"
							ask="Signed with your name, the thread is closed: nothing is added to it any more."
							yes="Sign it"
						/>
					</p>
				{/if}
			</form>
			{#if data.notBy !== null}<CloseUnproven {data} />{/if}
		{:else}
			<p class="mt-1">
				{report.proven ? 'Waits for a lead’s signature.' : 'A lead signs once nothing is open.'}
			</p>
		{/if}
	</section>

	<section class="hair py-3">
		<h2 class="font-bold">Evidence</h2>
		<p class="text-ink-2">
			{report.evidence.length} entries, each carrying the hash of the one before;
			{#if report.chainBroken}<strong class="text-bad">the chain is broken: {report.chainBroken}.</strong
				>{:else}the chain is intact.{/if}
		</p>
		<ol class="mt-2 text-sm">
			{#each report.evidence as entry (entry.seq)}
				<li
					class="grid grid-cols-[2rem_1fr_auto] gap-x-3 border-b border-rule py-1 {entry.superseded
						? 'line-through'
						: ''}"
				>
					<span class="num text-right">{entry.seq}</span>
					<span
						><strong>{entry.title}</strong>
						{entry.detail}<br /><span class="text-ink-2">{entry.at}, {entry.by}</span></span
					>
					<span class="num text-ink-2">{entry.hash.slice(0, 12)}</span>
				</li>
			{/each}
		</ol>
	</section>
	<p class="py-3 text-sm text-ink-2">
		Printed {data.printedAt}. Jaldi records and advises; a person decides and signs. The maker’s procedure and
		local law come first.
	</p>
	<div class="no-print mb-16 flex flex-wrap gap-3">
		<a class="act-quiet" href="/cases/{data.case.id}/report.pdf">Report as PDF</a>
		<a class="act-quiet" href="/cases/{data.case.id}/report.pdf?for=customer">One page for the customer</a>
		<button class="act-quiet" onclick={() => print()}>Print it</button>
		<a class="act-quiet" href="/cases/{data.case.id}/bundle.zip" download>The whole case as one file</a>
	</div>
</article>
