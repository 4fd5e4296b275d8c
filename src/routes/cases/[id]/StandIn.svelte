<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import Wrench from '@lucide/svelte/icons/wrench';
	import { page } from '$app/state';
	import { positionWords } from '$lib/case/words';
	import type { Position } from '$library/positions';
	import { repairs, type PlaceKind } from '$library/repairs';
	import { shown } from '$lib/ui/units';

	/** Hands on the simulated vehicle: what in a real bay is done beside the screen. */
	let { caseId }: { caseId: string } = $props();

	interface Panel {
		key: 'off' | 'on';
		speedKmh: number;
		odometerKm: number;
		driving: boolean;
		wheelsKmh: Record<string, number>;
		lamps: Record<string, boolean>;
		selfCheck: boolean;
		felt: string[];
		open: string[];
		plugged: boolean;
		places: Record<PlaceKind, string[]>;
		tellingLamp: string | null;
		slips: Record<string, { id: string; name: string }[]>;
	}
	const KINDS: { kind: PlaceKind; name: string }[] = [
		{ kind: 'corner', name: 'Corners' },
		{ kind: 'module', name: 'Modules' },
		{ kind: 'plug', name: 'Plugs' },
		{ kind: 'fuse', name: 'Fuses' },
		{ kind: 'ground', name: 'Ground points' },
		{ kind: 'splice', name: 'Splices' },
		{ kind: 'vehicle', name: 'All of it' }
	];
	/** A round of the quay at the pace of life, for recordings: starts, bends both ways, stops. */
	const ROUND = [
		{ toKmh: 18, overS: 6 },
		{ toKmh: 0, overS: 5 },
		{ toKmh: 0, overS: 2 },
		{ toKmh: 20, overS: 6 },
		{ toKmh: 20, overS: 8, steeringDeg: 200 },
		{ toKmh: 20, overS: 8, steeringDeg: -200 },
		{ toKmh: 52, overS: 10, steeringDeg: 0 },
		{ toKmh: 52, overS: 35 },
		{ toKmh: 0, overS: 9 },
		{ toKmh: 16, overS: 5 },
		{ toKmh: 0, overS: 5 }
	];
	const GEAR_KMH = 7;
	const SPIN_KMH = 12;
	const DRIVE_RATE = 60;
	const POLL_MS = 700;
	/** Where somebody counts the flashes of a lamp. */
	const LAMP_POLL_MS = 60;

	let inGear = $state(false);
	let pedal = $state(false);
	let bridged = $state(false);
	let open = $state(false);
	let panel = $state<Panel | null>(null);
	let trouble = $state<string | null>(null);
	let place = $state('');
	let repair = $state('renew-lead');
	let slip = $state('');
	let did = $state<string | null>(null);

	const at = $derived(place || (panel?.places.corner.at(-2) ?? ''));
	const kind = $derived(KINDS.find((one) => panel?.places[one.kind].includes(at))?.kind ?? 'corner');
	const possible = $derived(
		[...repairs.values()].filter(
			(one) => one.at === kind || (one.at === 'any' && (kind === 'corner' || kind === 'module'))
		)
	);
	const chosen = $derived(possible.some(({ id }) => id === repair) ? repair : (possible[0]?.id ?? ''));
	const slips = $derived(panel?.slips[chosen] ?? []);
	const leaves = $derived(slips.some(({ id }) => id === slip) ? [slip] : []);
	const turns = $derived(kind === 'corner' && Math.abs(panel?.wheelsKmh[at] ?? 0) > 0 && !panel?.driving);
	const hasPlug = $derived(kind === 'corner' || kind === 'module' || kind === 'plug');
	const counts = $derived(page.url.pathname.endsWith('/lamp'));
	const hasBridge = $derived(panel?.places.module.includes('trailer-brake') ?? false);
	const placeWords = (name: string) =>
		/-(left|right)$/.test(name) ? positionWords(name as Position) : name.replace('-', ' ');

	async function take(response: Response) {
		const body = await response.json();
		if (response.ok) panel = body;
		trouble = response.ok ? null : (body.error ?? body.message);
		return response.ok;
	}
	async function look() {
		try {
			await take(await fetch(`/cases/${caseId}/stand-in`));
		} catch {
			trouble = 'The server cannot be reached.';
		}
	}
	async function act(action: object, words: string) {
		did = null;
		try {
			const response = await fetch(`/cases/${caseId}/stand-in`, {
				method: 'POST',
				body: JSON.stringify(action)
			});
			if (await take(response)) did = words;
		} catch {
			trouble = 'The server cannot be reached.';
		}
	}
	$effect(() => {
		if (!open) return;
		void look();
		let over = false;
		let timer: ReturnType<typeof setTimeout>;
		const again = async () => {
			await look();
			if (!over) timer = setTimeout(again, counts ? LAMP_POLL_MS : POLL_MS);
		};
		timer = setTimeout(again, POLL_MS);
		return () => {
			over = true;
			clearTimeout(timer);
		};
	});
</script>

<div
	class="no-print fixed right-0 bottom-0 z-30 flex max-w-[96vw] flex-col items-end lg:max-w-[calc(100vw-348px)]"
>
	<button
		class="mr-4 flex min-h-11 cursor-pointer items-center gap-2 rounded-t-lg bg-neutral px-5 text-neutral-content"
		aria-expanded={open}
		onclick={() => (open = !open)}
	>
		<Wrench size={18} aria-hidden="true" /> Simulator {#if panel}· key {panel.key}{panel.driving
				? ` · ${shown(panel.speedKmh, 'speed')}`
				: ''}{/if}
	</button>
	{#if open}
		<section aria-label="Simulator" class="space-y-3 border-2 border-ink bg-base-200 p-4">
			<p class="text-sm text-ink-2">
				A simulated vehicle, for practice and tests. In the bay you do these things with your hands.
			</p>
			{#if panel}
				<div class="flex flex-wrap items-center gap-3">
					<button
						class="act-quiet"
						onclick={() => act({ do: 'key', to: panel?.key === 'on' ? 'off' : 'on' }, 'Key turned.')}
					>
						Turn the key {panel.key === 'on' ? 'off' : 'on'}
					</button>
					<button
						class="act-quiet"
						onclick={() =>
							act(
								{ do: 'plug', in: !panel?.plugged },
								panel?.plugged ? 'Interface pulled.' : 'Interface plugged in.'
							)}
					>
						{panel.plugged ? 'Pull the interface' : 'Plug the interface in'}
					</button>
					<Act
						class="act-quiet"
						whyNot={panel.driving ? 'It is driving.' : panel.key === 'off' ? 'The key is off.' : null}
						onclick={() => act({ do: 'drive', rate: DRIVE_RATE }, 'Driving, sixty times as fast as life.')}
					>
						{panel.driving
							? `Driving, ${shown(panel.speedKmh, 'speed')}`
							: `Drive ${shown(3, 'distance')}, up to ${shown(65, 'speed')}`}
					</Act>
					<Act
						class="act-quiet"
						whyNot={panel.driving ? 'It is driving.' : panel.key === 'off' ? 'The key is off.' : null}
						onclick={() =>
							act({ do: 'drive', rate: 1, legs: ROUND }, 'Driving at the pace of life, two minutes.')}
					>
						Drive in real time
					</Act>
					<Act
						class="act-quiet"
						whyNot={panel.driving ? 'It is driving.' : panel.key === 'off' ? 'The key is off.' : null}
						onclick={() => {
							inGear = !inGear;
							void act(
								{ do: 'in-gear', kmh: inGear ? GEAR_KMH : 0 },
								inGear ? 'Running in gear.' : 'Out of gear.'
							);
						}}
					>
						{inGear ? 'Out of gear' : 'Run in gear on stands'}
					</Act>
					<button
						class="act-quiet"
						onclick={() => {
							pedal = !pedal;
							void act({ do: 'pedal', pressed: pedal }, pedal ? 'Pedal pressed.' : 'Pedal released.');
						}}
					>
						{pedal ? 'Release the pedal' : 'Press the pedal'}
					</button>
					{#if hasBridge}
						<button
							class="act-quiet"
							onclick={() => {
								bridged = !bridged;
								void act({ do: 'bridge', closed: bridged }, bridged ? 'Bridged.' : 'Opened.');
							}}
						>
							{bridged ? 'Open the bridge' : 'Bridge the test plug'}
						</button>
					{/if}
					{#if panel.tellingLamp}
						{@const lit = panel.lamps[panel.tellingLamp] ?? false}
						<span
							role="img"
							aria-label={lit ? 'Its lamp is lit' : 'Its lamp is dark'}
							class="size-9 rounded-full border-3 border-ink {lit ? 'bg-ink' : ''}"
						></span>
					{/if}
					{#if counts && panel.tellingLamp && !hasBridge}
						<button
							class="act-quiet touch-none select-none"
							onpointerdown={() => void act({ do: 'pedal', pressed: true }, '')}
							onpointerup={() => void act({ do: 'pedal', pressed: false }, '')}
							onpointerleave={() => void act({ do: 'pedal', pressed: false }, '')}
						>
							Pedal, while you hold it
						</button>
					{/if}
					<span>
						Lamps: {Object.entries(panel.lamps)
							.filter(([, lit]) => lit)
							.map(([name]) => name)
							.join(', ') || 'all out'}{panel.selfCheck ? ' (self-check)' : ''}{panel.felt.length > 0
							? ` · ${panel.felt.join(', ')}`
							: ''}
					</span>
					<span class="num">{shown(panel.odometerKm, 'distance', 1)}</span>
				</div>
				<div class="flex flex-wrap items-center gap-3">
					<label class="flex items-center gap-2">
						<span>At</span>
						<select
							class="field w-auto!"
							aria-label="Place"
							value={at}
							onchange={(event) => {
								place = event.currentTarget.value;
								// What was done elsewhere says nothing of this place.
								did = null;
							}}
						>
							{#each KINDS as { kind: group, name } (group)}
								{#if panel.places[group].length > 0}
									<optgroup label={name}>
										{#each panel.places[group] as one, nth (nth)}<option value={one}>{placeWords(one)}</option
											>{/each}
									</optgroup>
								{/if}
							{/each}
						</select>
					</label>
					{#if kind === 'corner'}
						<button
							class="act-quiet"
							onclick={() => act({ do: 'spin', position: at, kmh: turns ? 0 : SPIN_KMH }, 'Done.')}
						>
							{turns ? 'Hold the wheel' : 'Spin the wheel'}
						</button>
					{/if}
					{#if kind === 'corner'}
						<button
							class="act-quiet"
							onclick={() =>
								act({ do: 'wave-steel', position: at, times: 20 }, 'Steel waved past the sensor.')}
						>
							Wave steel past it
						</button>
					{/if}
					{#if hasPlug}
						<button
							class="act-quiet"
							onclick={() =>
								act(
									{ do: 'connector', name: at, closed: panel?.open.includes(at) },
									panel?.open.includes(at) ? 'Plug closed.' : 'Plug opened.'
								)}
						>
							{panel.open.includes(at) ? 'Close the plug' : 'Open the plug'}
						</button>
					{/if}
					{#if kind !== 'vehicle'}
						<button
							class="act-quiet"
							onclick={() => act({ do: 'wiggle', at }, `Wiggling the ${placeWords(at)} for five seconds.`)}
						>
							Wiggle it
						</button>
						<button
							class="act-quiet"
							onclick={() =>
								act({ do: 'spray', at }, `Water on the ${placeWords(at)}; it dries in five minutes.`)}
						>
							Wet it
						</button>
						<button
							class="act-quiet"
							onclick={() =>
								act({ do: 'warm', at }, `Hot air at the ${placeWords(at)}; it is cold again in two minutes.`)}
						>
							Warm it
						</button>
					{/if}
				</div>
				{#if possible.length > 0}
					<div class="flex flex-wrap items-center gap-3">
						<select
							class="field w-auto!"
							aria-label="Repair"
							value={chosen}
							onchange={(event) => (repair = event.currentTarget.value)}
						>
							{#each possible as { id, name } (id)}<option value={id}>{name}</option>{/each}
						</select>
						{#if slips.length > 0}
							<select class="field w-auto!" aria-label="How it is done" bind:value={slip}>
								<option value="">as it should be</option>
								{#each slips as { id, name } (id)}<option value={id}>so that {name}</option>{/each}
							</select>
						{/if}
						<button
							class="act-quiet"
							onclick={() =>
								act({ do: 'mend', at, repair: chosen, leaves }, `Repair done at the ${placeWords(at)}.`)}
						>
							Do the repair
						</button>
					</div>
				{/if}
			{/if}
			<p aria-live="polite" class="min-h-6 font-semibold">{trouble ?? did ?? ''}</p>
		</section>
	{/if}
</div>
