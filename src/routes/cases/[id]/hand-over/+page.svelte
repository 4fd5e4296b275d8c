<script lang="ts">
	import { upperFirst } from '$lib/case/words';
	import { untrack } from 'svelte';
	import { entryForm } from '$lib/ui/entryForm.svelte';
	import Field from '$lib/ui/Field.svelte';
	import FormFoot from '$lib/ui/FormFoot.svelte';

	let { data } = $props();
	const sign = entryForm(() => data.signForm, {
		id: 'sign-form',
		draftKey: untrack(() => `${data.case.id}:sign`)
	});
	const { form, errors, enhance } = sign;
</script>

<svelte:head><title>{data.case.number} Hand over · Jaldi</title></svelte:head>
<article class="paper max-w-[820px] pt-5">
	<header class="flex flex-wrap items-end justify-between gap-4 border-b-2 border-ink pb-3">
		<div>
			<p class="text-ink-2">Tern Point Works · <span class="num">{data.case.number}</span></p>
			<h1 class="text-2xl leading-tight font-bold">{data.verdict}</h1>
		</div>
		<p class="text-right">
			{data.case.vehicleName}, {data.case.vehicle.nickname}<br />
			<span class="num">{data.case.vehicle.plate}</span>
			{#if data.vehicle}<br /><span class="num">{data.vehicle.vin}</span>, {data.vehicle.odometerKm.toLocaleString(
					'en-GB'
				)} km{/if}
		</p>
	</header>

	{#if data.open.length > 0}
		<section class="my-4 border-l-4 border-ink pl-4">
			<h2 class="font-bold">Not ready to be handed over</h2>
			<ul class="list-disc pl-5">
				{#each data.open as reason (reason)}<li>{reason}</li>{/each}
			</ul>
		</section>
	{/if}

	<section class="py-3">
		<h2 class="font-bold">What brought it here</h2>
		<p class="mt-1 text-lg">
			{data.complaintWords ? `“${data.complaintWords}”` : 'No complaint is written down.'}
		</p>
		{#if data.lamps.length > 0}<p>
				{data.lamps.map((l) => `${l.lamp} lamp ${l.manner}, ${l.when}`).join('; ')}.
			</p>{/if}
		{#if data.prior.length > 0}<p class="text-ink-2">
				Done before by others, and not taken as proven: {data.prior.map((w) => w.part).join(', ')}.
			</p>{/if}
	</section>

	<section class="hair py-3">
		<h2 class="font-bold">What was done</h2>
		{#each data.repairs as repair, i (i)}
			<p class="mt-1 text-lg">
				{repair.title}{repair.where ? `, ${repair.where}` : ''}{repair.temporary
					? ' (temporary: it has to be done again)'
					: ''}.
			</p>
			{#each repair.parts as part (part.name)}<p>
					Fitted: {part.name}{part.number ? `, ${part.number}` : ''} ({part.grade}).
				</p>{/each}
			{#if repair.note}<p class="text-ink-2">{repair.note}</p>{/if}
		{:else}<p class="mt-1">No repair is written down.</p>{/each}
	</section>

	{#if data.calibrations.length > 0}
		<section class="hair py-3" aria-labelledby="taught">
			<h2 id="taught" class="font-bold">What its modules were told and taught</h2>
			{#each data.calibrations as { id, name, state, values, words } (id)}
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
				{#each data.codes as code (code.key)}
					<tr class="border-b border-rule align-top [&>td]:py-2 [&>td]:pr-4">
						<td class="num whitespace-nowrap">{code.text}</td>
						<td
							>{code.title}{code.failureType ? `, ${code.failureType}` : ''}<br /><span class="text-ink-2"
								>{code.moduleName}</span
							></td
						>
						<td class="w-72"
							><strong>{code.verdict}</strong><br /><span class="text-ink-2">{code.because}</span></td
						>
					</tr>
				{:else}<tr><td class="py-2">No module had a code.</td></tr>{/each}
			</tbody>
		</table>
		{#if data.lampCheck.length > 0}<p class="mt-2">
				Lamps at key-on: {data.lampCheck.map((l) => `${l.lamp} ${l.result}`).join('; ')}.
			</p>{/if}
		{#if data.drivenKm > 0}<p>
				Driven to prove it: <span class="num">{data.drivenKm.toFixed(1)} km</span>.
			</p>{/if}
	</section>

	<section id="sign" class="hair py-3">
		<h2 class="font-bold">Signature</h2>
		{#if data.signature}
			<p class="mt-1 text-lg">{data.signature.statement}</p>
			<p>{data.signature.by}, {data.signature.at}</p>
		{:else if data.maySign}
			<form method="POST" action="?/sign" use:enhance class="no-print mt-2">
				<Field label="As lead, I sign" errors={$errors.statement}
					><input class="field" bind:value={$form.statement} disabled={!data.proven} /></Field
				>
				{#if data.proven}<FormFoot made={sign} save="Sign and close the case" />{:else}<p class="mt-2">
						It can be signed once nothing is open.
					</p>{/if}
			</form>
		{:else}
			<p class="mt-1">
				{data.proven ? 'Waits for a lead’s signature.' : 'A lead signs once nothing is open.'}
			</p>
		{/if}
	</section>

	<section class="hair py-3">
		<h2 class="font-bold">Evidence</h2>
		<p class="text-ink-2">
			{data.evidence.length} entries, each carrying the hash of the one before;
			{#if data.chainBroken}<strong class="text-bad">the chain is broken: {data.chainBroken}.</strong
				>{:else}the chain is intact.{/if}
		</p>
		<ol class="mt-2 text-sm">
			{#each data.evidence as entry (entry.seq)}
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
	<button class="act-quiet no-print mb-16" onclick={() => print()}>Print it</button>
</article>
