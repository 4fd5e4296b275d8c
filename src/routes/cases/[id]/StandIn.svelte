<script lang="ts">
	import Wrench from '@lucide/svelte/icons/wrench';
	import { positionWords } from '$lib/case/words';
	import { POSITIONS, type Position } from '$library/index';

	/** Hands on the simulated vehicle: what in a real bay is done beside the screen. */
	let { caseId }: { caseId: string } = $props();

	interface Panel {
		key: 'off' | 'on';
		speedKmh: number;
		odometerKm: number;
		driving: boolean;
		wheelsKmh: Record<Position, number>;
		lamps: Record<string, boolean>;
		selfCheck: boolean;
		plugged: boolean;
	}
	const REPAIRS = [
		{ id: 'renew-lead', name: 'renew the lead' },
		{ id: 'renew-sensor', name: 'renew the sensor' },
		{ id: 'refit-ring', name: 'refit the ring' }
	];
	const SPIN_KMH = 12;
	const DRIVE_RATE = 60;
	const POLL_MS = 700;

	let open = $state(false);
	let panel = $state<Panel | null>(null);
	let trouble = $state<string | null>(null);
	let corner = $state<Position>('rear-left');
	let repair = $state('renew-lead');
	let did = $state<string | null>(null);

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
		const timer = setInterval(look, POLL_MS);
		return () => clearInterval(timer);
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
		<Wrench size={18} aria-hidden="true" /> Stand-in vehicle {#if panel}· key {panel.key}{panel.driving
				? ` · ${panel.speedKmh.toFixed(0)} km/h`
				: ''}{/if}
	</button>
	{#if open}
		<section aria-label="Stand-in vehicle" class="space-y-3 border-2 border-ink bg-base-200 p-4">
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
					<button
						class="act-quiet"
						disabled={panel.driving || panel.key === 'off'}
						onclick={() => act({ do: 'drive', rate: DRIVE_RATE }, 'Driving, sixty times as fast as life.')}
					>
						{panel.driving ? `Driving, ${panel.speedKmh.toFixed(0)} km/h` : 'Drive 3 km, up to 65 km/h'}
					</button>
					<span>
						Lamps: {Object.entries(panel.lamps)
							.filter(([, lit]) => lit)
							.map(([name]) => name)
							.join(', ') || 'all out'}{panel.selfCheck ? ' (self-check)' : ''}
					</span>
				</div>
				<div class="flex flex-wrap items-center gap-3">
					<select class="field w-auto!" aria-label="Corner" bind:value={corner}>
						{#each POSITIONS as position (position)}<option value={position}>{positionWords(position)}</option
							>{/each}
					</select>
					<button
						class="act-quiet"
						onclick={() =>
							act({ do: 'spin', position: corner, kmh: panel?.wheelsKmh[corner] ? 0 : SPIN_KMH }, 'Done.')}
					>
						{panel.wheelsKmh[corner] > 0 && !panel.driving ? 'Hold the wheel' : 'Spin the wheel'}
					</button>
					<select class="field w-auto!" aria-label="Repair" bind:value={repair}>
						{#each REPAIRS as { id, name } (id)}<option value={id}>{name}</option>{/each}
					</select>
					<button
						class="act-quiet"
						onclick={() =>
							act(
								{ do: 'mend', position: corner, action: repair },
								`Repair done at the ${positionWords(corner)}.`
							)}>Do the repair</button
					>
					<span class="num">{panel.odometerKm.toFixed(1)} km</span>
				</div>
			{/if}
			<p aria-live="polite" class="min-h-6 font-semibold">{trouble ?? did ?? ''}</p>
		</section>
	{/if}
</div>
