<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { ulid } from 'ulid';
	import type { FrameSignal } from '$lib/core/live/frameSignals';
	import NumberField from '$lib/ui/NumberField.svelte';
	import type { Importer } from './importer.svelte';

	/** Which bits of which frames are what: the shop's list, and a form to add to it while looking at a log. */
	let { importer, channels }: { importer: Importer; channels: { signal: string; name: string }[] } = $props();
	const ids = $derived(importer.frames?.ids ?? []);
	const empty = (): FrameSignal => ({
		frameId: '',
		channel: 'front_left',
		firstByte: 0,
		bits: 16,
		shift: 0,
		order: 'big',
		signed: false,
		factor: 0.01,
		offset: 0,
		only: null,
		invalid: 65535
	});
	let draft = $state(empty());
	let onlyByte = $state<number | null>(null);
	let onlyValue = $state<number | null>(null);
	const nameOf = (signal: string) => channels.find((one) => one.signal === signal)?.name ?? signal;

	async function add() {
		const only = onlyByte !== null && onlyValue !== null ? { byte: onlyByte, value: onlyValue } : null;
		const rule = { ...$state.snapshot(draft), frameId: draft.frameId.trim().toUpperCase(), only };
		if (await importer.changeSignal({ do: 'keep', id: ulid(), rule })) {
			draft = { ...draft, firstByte: draft.firstByte + Math.ceil(draft.bits / 8) };
		}
	}
</script>

<div class="mt-3">
	<p class="text-lg font-semibold">Which frames carry what?</p>
	<p class="text-ink-2">
		{importer.fileName}: <span class="num">{importer.frames?.frames.toLocaleString('en-GB')}</span> frames of {ids.length ===
		1
			? 'one identifier'
			: `${ids.length} identifiers`}. What you say here is known to the whole shop.
	</p>
	<ul class="mt-2">
		{#each importer.fitting as signal (signal.id)}
			<li class="hair flex flex-wrap items-center gap-x-4 py-1">
				<span class="num">{signal.frameId}</span>
				<span
					>{nameOf(signal.channel)}: {signal.bits} bits from byte {signal.firstByte}, × {signal.factor}{signal.only
						? `, where byte ${signal.only.byte} is ${signal.only.value}`
						: ''}</span
				>
				<span class="text-ink-2">by {signal.by}</span>
				<button
					class="act-quiet ml-auto"
					onclick={() => importer.changeSignal({ do: 'forget', id: signal.id })}>Forget it</button
				>
			</li>
		{:else}
			<li class="hair py-2">None of the shop’s signals is in this log.</li>
		{/each}
	</ul>
	<form
		class="mt-4"
		onsubmit={(event) => {
			event.preventDefault();
			void add();
		}}
	>
		<div class="grid gap-3 sm:grid-cols-4">
			<label class="sm:col-span-2">
				<span class="text-sm text-ink-2">frames</span>
				<select class="field num" aria-label="Frames" bind:value={draft.frameId} required>
					<option value="">choose</option>
					{#each ids as { id, count, everyS, sample } (id)}
						<option value={id}>{id} · {count} × · every {(everyS * 1000).toFixed(0)} ms · {sample}</option>
					{/each}
				</select>
			</label>
			<label class="sm:col-span-2">
				<span class="text-sm text-ink-2">carry</span>
				<select class="field" aria-label="Carry" bind:value={draft.channel}>
					{#each channels as { signal, name }, nth (nth)}<option value={signal}>{name}</option>{/each}
				</select>
			</label>
			<NumberField label="from byte (0 …)" min={0} max={63} bind:value={draft.firstByte} required />
			<NumberField label="bits" min={1} max={32} bind:value={draft.bits} required />
			<NumberField label="lowest bit (0 … 7)" min={0} max={7} bind:value={draft.shift} required />
			<label>
				<span class="text-sm text-ink-2">high byte</span>
				<select class="field" bind:value={draft.order}
					><option value="big">first</option><option value="little">last</option></select
				>
			</label>
			<NumberField label="× factor" step="any" bind:value={draft.factor} required />
			<NumberField label="+ offset" step="any" bind:value={draft.offset} required />
			<NumberField label="counts for “not available”" min={0} bind:value={draft.invalid} />
			<label class="flex min-h-11 items-center gap-2 self-end"
				><input type="checkbox" class="checkbox" bind:checked={draft.signed} /> may be negative</label
			>
			<NumberField label="only where byte" min={0} max={63} bind:value={onlyByte} />
			<NumberField label="is (0 … 255)" min={0} max={255} bind:value={onlyValue} />
		</div>
		<div class="mt-3 flex flex-wrap gap-3">
			<button class="act-quiet">Add this signal</button>
			<Act
				type="button"
				class="act"
				whyNot={importer.fitting.length === 0 ? 'No signal fits these frames yet.' : null}
				onclick={() => importer.readFrames()}>Read it so</Act
			>
			<button type="button" class="act-quiet" onclick={() => importer.giveUp()}>Leave it</button>
		</div>
	</form>
</div>
