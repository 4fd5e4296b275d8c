<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { upperFirst } from '$lib/case/words';
	import type { VehicleField } from '$lib/case/thread/vehicleView';

	interface Draft {
		changed: Record<string, string>;
		because: string;
	}
	let { data } = $props();
	/** What was typed or chosen anew, by path. */
	let changed = $state<Record<string, string>>({});
	let because = $state('');
	let saving = $state(false);
	let trouble = $state('');
	let entryId = ulid();
	const count = $derived(Object.keys(changed).length);
	const mayWrite = $derived(data.canWrite && !data.case.signed);

	// What was typed outlives a reload, until it is kept.
	const draftKey = $derived(`jaldi:draft:${data.case.id}:vehicle`);
	let restored = $state(false);
	onMount(() => {
		try {
			const kept = JSON.parse(sessionStorage.getItem(draftKey) ?? '{}') as Partial<Draft>;
			changed = { ...kept.changed };
			because = kept.because ?? '';
		} catch {
			sessionStorage.removeItem(draftKey);
		}
		restored = true;
	});
	$effect(() => {
		const draft = JSON.stringify({ changed, because } satisfies Draft);
		if (!restored) return;
		if (count > 0) sessionStorage.setItem(draftKey, draft);
		else sessionStorage.removeItem(draftKey);
	});

	function change({ path, value }: VehicleField, next: string) {
		if (next === String(value)) delete changed[path];
		else changed[path] = next;
		entryId = ulid();
	}
	/** Looked at, and it is as it was assumed. */
	function confirm({ path, value }: VehicleField) {
		if (path in changed) delete changed[path];
		else changed[path] = String(value);
		entryId = ulid();
	}
	const kinds = $derived(
		new Map(
			data.sections.flatMap(({ things }) =>
				things.flatMap(({ fields }) => fields.map(({ path, kind }) => [path, kind] as const))
			)
		)
	);

	const YES_NO: Record<string, boolean | undefined> = { true: true, false: false };
	/** What is no number is sent as it is: the server says what it expected. */
	function numberIn(text: string): number | string {
		const number = Number(text.replace(',', '.'));
		return text.trim() !== '' && Number.isFinite(number) ? number : text;
	}

	async function save() {
		saving = true;
		trouble = '';
		const corrections = Object.entries(changed).map(([path, text]) => ({
			path,
			value: kinds.get(path) === 'number' ? numberIn(text) : (YES_NO[text] ?? text)
		}));
		try {
			const response = await fetch(`/cases/${data.case.id}/vehicle`, {
				method: 'PUT',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify({ entryId, because, corrections })
			});
			if (response.ok) {
				changed = {};
				because = '';
				entryId = ulid();
				toast.success('Kept: the next case of this type begins with it.');
				await invalidate('jaldi:case');
			} else {
				const answer = (await response.json().catch(() => null)) as { message?: string } | null;
				trouble = answer?.message ?? 'The server refused. What you typed is kept here.';
			}
		} catch {
			trouble = 'The server cannot be reached. What you typed is kept here.';
		}
		saving = false;
	}
</script>

<svelte:head><title>{data.case.number} The vehicle · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">
		{upperFirst(data.name)}: {data.assumed === 0
			? 'all of it is known'
			: `${data.assumed} things are only assumed`}
	</h1>
	<p class="mt-1 text-ink-2">
		Assumed is what is usual on such a vehicle. Put right what you look up or see, or tick it where it is so:
		it stays with this type of vehicle for the next case.
	</p>
</section>
{#each data.sections as { title, things }, nth (nth)}
	<details open={nth < 3} class="mt-5 border-t border-rule pt-3">
		<summary class="min-h-11 cursor-pointer py-2 text-lg font-bold">
			{title}
			<span class="pl-2 text-base font-normal text-ink-2"
				>{things.flatMap(({ fields }) => fields).filter(({ assumed }) => assumed).length} not known</span
			>
		</summary>
		<ul>
			{#each things as thing, i (i)}
				<li class="hair grid gap-x-5 gap-y-2 py-2 md:grid-cols-[13rem_minmax(0,1fr)]">
					<span class="pt-2.5 font-semibold">{upperFirst(thing.name)}</span>
					<div class="flex flex-wrap items-end gap-x-5 gap-y-2">
						{#each thing.fields as one, j (j)}
							<div class="flex items-end gap-2">
								<label>
									<span class="block text-sm text-ink-2">{one.label}{one.unit ? `, ${one.unit}` : ''}</span>
									{#if one.kind === 'choice'}
										<select
											class="field"
											disabled={!mayWrite}
											value={changed[one.path] ?? String(one.value)}
											onchange={(event) => change(one, event.currentTarget.value)}
										>
											{#each one.choices as [value, words], k (k)}<option {value}>{words}</option>{/each}
										</select>
									{:else}
										<input
											class="field {one.kind === 'number' ? 'num w-28! text-right' : 'w-56!'}"
											inputmode={one.kind === 'number' ? 'decimal' : undefined}
											readonly={!mayWrite}
											value={changed[one.path] ?? String(one.value)}
											oninput={(event) => change(one, event.currentTarget.value)}
										/>
									{/if}
								</label>
								{#if one.assumed && one.value !== 'unknown'}
									<label class="flex min-h-11 cursor-pointer items-center gap-2 text-sm">
										<input
											type="checkbox"
											class="checkbox"
											disabled={!mayWrite}
											checked={one.path in changed}
											onchange={() => confirm(one)}
											aria-label="{thing.name}, {one.label}: it is so"
										/>
										<span>{one.path in changed ? 'seen' : 'assumed'}</span>
									</label>
								{/if}
							</div>
						{/each}
					</div>
				</li>
			{/each}
		</ul>
	</details>
{/each}
{#if mayWrite && count > 0}
	<section class="sticky bottom-0 mt-6 border-t-2 border-ink bg-base-100 py-3" aria-label="Keep it">
		{#if trouble}<p role="alert" class="mb-2 border-l-4 border-ink pl-3 font-semibold">{trouble}</p>{/if}
		<div class="flex items-center gap-3">
			<input
				class="field min-w-0 flex-1"
				aria-label="How do you know?"
				placeholder="How do you know? Seen at the vehicle, the maker’s diagram"
				bind:value={because}
			/>
			<button class="act whitespace-nowrap" disabled={saving} onclick={save}
				>Keep {count === 1 ? 'one thing' : `${count} things`}</button
			>
		</div>
	</section>
{/if}
