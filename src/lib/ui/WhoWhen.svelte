<script lang="ts" module>
	import type { PayloadOf } from '../case/entries/entry';

	/** What is planned of a case. */
	export interface Planned {
		id: string;
		/** What it is called, so that whoever changes it sees which it is. */
		name: string;
		promise: PayloadOf<'promised'> | null;
		assigned: { id: string; name: string } | null;
		waiting: { what: string; lift: string; note?: string } | null;
	}
</script>

<script lang="ts">
	import { dueWords } from '../case/progress/dueWords';
	import { WAITS_FOR } from '../case/entries/waiting/payload';
	import { sendEntry } from '../away/record';
	import DueField from './DueField.svelte';
	import Field from './Field.svelte';

	/** When a case is promised, who has it, what it waits for and where it stands: changed from wherever they are seen. */
	let {
		people,
		closesAtHour,
		onsaved
	}: { people: { id: string; name: string }[]; closesAtHour: number; onsaved: () => void } = $props();

	const NOTHING = 'nothing';
	let dialog: HTMLDialogElement;
	let of = $state<Planned | null>(null);
	let words = $state('');
	let has = $state('');
	let what = $state<PayloadOf<'waiting'>['what']>(NOTHING);
	let lift = $state('');
	let note = $state('');
	let saving = $state(false);
	let due = $state('');
	/** What was promised, as it would be typed now: "tomorrow" of yesterday is today. */
	const promisedWords = ({ promise }: Planned): string =>
		promise?.due ? dueWords(new Date(promise.due), new Date()) : (promise?.words ?? '');

	export function open(planned: Planned): void {
		of = planned;
		words = promisedWords(planned);
		has = planned.assigned?.id ?? '';
		what = WAITS_FOR.find((one) => one === planned.waiting?.what) ?? NOTHING;
		lift = planned.waiting?.lift ?? '';
		note = planned.waiting?.note ?? '';
		dialog.showModal();
	}

	async function save(event: SubmitEvent) {
		event.preventDefault();
		const planned = of;
		if (!planned || saving) return;
		saving = true;
		const said = words.trim();
		const to = people.find(({ id }) => id === has) ?? null;
		const { assigned, waiting, id } = planned;
		const sent = [
			said !== promisedWords(planned)
				? await sendEntry(id, 'promised', { due: due || null, words: said })
				: null,
			(to?.id ?? null) === (assigned?.id ?? null) ? null : await sendEntry(id, 'assigned', { to }),
			what === (waiting?.what ?? NOTHING) &&
			lift.trim() === (waiting?.lift ?? '') &&
			note.trim() === (waiting?.note ?? '')
				? null
				: await sendEntry(id, 'waiting', { what, lift: lift.trim(), note: note.trim() })
		];
		saving = false;
		if (sent.includes(false)) return;
		dialog.close();
		onsaved();
	}
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="who-when">
	<form class="modal-box max-w-xl border border-ink bg-base-100 shadow-none" onsubmit={(e) => void save(e)}>
		<h2 id="who-when" class="text-xl font-bold">{of?.name ?? ''}</h2>
		{#if of}<div class="mt-4 space-y-4">
				<DueField bind:words bind:due {closesAtHour} />
				<Field label="Who has it">
					<select class="field" bind:value={has}>
						<option value="">Whoever is free first</option>
						{#each people as { id, name } (id)}<option value={id}>{name}</option>{/each}
						{#if of?.assigned && !people.some(({ id }) => id === of?.assigned?.id)}
							<option value={of.assigned.id}>{of.assigned.name}</option>
						{/if}
					</select>
				</Field>
				<div class="grid gap-4 sm:grid-cols-2">
					<Field label="Waits for">
						<select class="field" bind:value={what}
							>{#each WAITS_FOR as one (one)}<option value={one}>{one}</option>{/each}</select
						>
					</Field>
					<Field label="Stands at"
						><input class="field" bind:value={lift} maxlength="60" placeholder="lift 2" /></Field
					>
				</div>
				{#if what !== NOTHING}
					<Field label="Until when, or who helps"
						><input class="field" bind:value={note} maxlength="300" /></Field
					>
				{/if}
			</div>{/if}
		<div class="mt-6 flex flex-wrap gap-4">
			<button class="act" disabled={saving}>Save</button>
			<button type="button" class="act-quiet" onclick={() => dialog.close()}>Leave it</button>
		</div>
	</form>
</dialog>
