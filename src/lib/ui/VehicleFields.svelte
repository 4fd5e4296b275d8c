<script lang="ts">
	import { onMount } from 'svelte';
	import { toast } from 'svelte-sonner';
	import { ulid } from 'ulid';
	import { upperFirst } from '$lib/case/words';
	import type { VehicleField, VehicleSection } from '$lib/case/thread/vehicleView';

	interface Draft {
		changed: Record<string, string>;
		because: string;
	}
	/** What was told, by path, and how it is known. */
	interface Told {
		corrections: { path: string; value: string | number | boolean }[];
		because: string;
	}
	interface Props {
		sections: VehicleSection[];
		mayWrite: boolean;
		/** Under which what was typed outlives a reload. */
		draftKey: string;
		/** A field that somebody came for: it is open and in the hand. */
		at?: string | null;
		/** How many sections stand open at first. */
		open?: number;
		/** Sends it. What comes back is why it was refused; null where it is kept. The id is the same until something else is told. */
		keep: (told: Told, id: string) => Promise<string | null>;
	}
	let { sections, mayWrite, draftKey, at = null, open = 3, keep }: Props = $props();
	/** What was typed or chosen anew, by path. */
	let changed = $state<Record<string, string>>({});
	let because = $state('');
	let saving = $state(false);
	let trouble = $state('');
	let entryId = ulid();
	const count = $derived(Object.keys(changed).length);

	const has = (things: VehicleSection['things'], path: string | null) =>
		things.some(({ fields }) => fields.some((one) => one.path === path));
	onMount(() => {
		if (at) document.getElementById(`field:${at}`)?.focus();
	});

	// What was typed outlives a reload, until it is kept.
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

	/** What stood at a path before each change, the latest last; typing on in one field is one change. */
	let history = $state<{ path: string; before: string | undefined }[]>([]);
	function tell(path: string, next: string | undefined) {
		if (history.at(-1)?.path !== path) history.push({ path, before: changed[path] });
		if (next === undefined) delete changed[path];
		else changed[path] = next;
		entryId = ulid();
	}
	const change = ({ path, value }: VehicleField, next: string) =>
		tell(path, next === String(value) ? undefined : next);
	/** Looked at, and it is as it was assumed. */
	const confirm = ({ path, value }: VehicleField) => tell(path, path in changed ? undefined : String(value));
	function undo() {
		const last = history.pop();
		if (!last) return;
		if (last.before === undefined) delete changed[last.path];
		else changed[last.path] = last.before;
		entryId = ulid();
	}
	const kinds = $derived(
		new Map(
			sections.flatMap(({ things }) =>
				things.flatMap(({ fields }) => fields.map(({ path, value }) => [path, typeof value] as const))
			)
		)
	);

	const unknown = (things: VehicleSection['things']) =>
		things.flatMap(({ fields }) => fields).filter(({ assumed }) => assumed).length;

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
		const refused = await keep({ corrections, because }, entryId).catch(
			() => 'The server cannot be reached. What you typed is kept here.'
		);
		if (refused === null) {
			changed = {};
			history = [];
			because = '';
			entryId = ulid();
			toast.success('Kept: the next case of this type begins with it.');
		} else trouble = refused;
		saving = false;
	}
</script>

{#each sections as { title, things }, nth (nth)}
	<details open={nth < open || has(things, at)} class="mt-5 border-t border-rule pt-3">
		<summary class="min-h-11 cursor-pointer py-2 text-lg font-bold">
			{title}
			<span class="pl-2 text-base font-normal text-ink-2"
				>{unknown(things) === 0 ? 'all known' : `${unknown(things)} not known`}</span
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
											id="field:{one.path}"
											class="field"
											disabled={!mayWrite}
											value={changed[one.path] ?? String(one.value)}
											onchange={(event) => change(one, event.currentTarget.value)}
										>
											{#each one.choices as [value, words], k (k)}<option {value}>{words}</option>{/each}
										</select>
									{:else}
										<input
											id="field:{one.path}"
											class="field {one.kind === 'number' ? 'num w-28! text-right' : 'w-56!'}"
											inputmode={one.kind === 'number' ? 'decimal' : undefined}
											readonly={!mayWrite}
											value={changed[one.path] ?? String(one.value)}
											oninput={(event) => change(one, event.currentTarget.value)}
										/>
									{/if}
								</label>
								{#if one.assumed && one.value !== 'unknown' && one.value !== ''}
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
			{#if history.length > 0}<button class="act-quiet whitespace-nowrap" onclick={undo}>Undo</button>{/if}
			<button class="act whitespace-nowrap" disabled={saving} onclick={save}
				>Keep {count === 1 ? 'one thing' : `${count} things`}</button
			>
		</div>
	</section>
{/if}
