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

	interface Typed {
		words: string;
		has: string;
		what: PayloadOf<'waiting'>['what'];
		lift: string;
		note: string;
	}
	const asPlanned = (planned: Planned): Typed => ({
		words: promisedWords(planned),
		has: planned.assigned?.id ?? '',
		what: WAITS_FOR.find((one) => one === planned.waiting?.what) ?? NOTHING,
		lift: planned.waiting?.lift ?? '',
		note: planned.waiting?.note ?? ''
	});
	/** Where what is typed and not saved is kept in this tab, through a reload. */
	const draftOf = ({ id }: Planned) => `jaldi:draft:plan:${id}`;

	export function open(planned: Planned): void {
		of = planned;
		const kept = sessionStorage.getItem(draftOf(planned));
		const changed = kept ? (JSON.parse(kept) as Partial<Typed>) : {};
		({ words, has, what, lift, note } = { ...asPlanned(planned), ...changed });
		dialog.showModal();
	}
	$effect(() => {
		if (!of) return;
		const was: Record<string, string> = { ...asPlanned(of) };
		// What was not touched is not kept: it is somebody else's to change.
		const changed = Object.entries({ words, has, what, lift, note }).filter(
			([name, now]) => was[name] !== now
		);
		if (changed.length > 0) sessionStorage.setItem(draftOf(of), JSON.stringify(Object.fromEntries(changed)));
		else sessionStorage.removeItem(draftOf(of));
	});
	/** Closed by whatever means, with what was typed given up. */
	function discard() {
		if (of) sessionStorage.removeItem(draftOf(of));
		of = null;
	}

	/** Only what was changed here is written: what somebody else wrote meanwhile stays. */
	async function save(event: SubmitEvent) {
		event.preventDefault();
		const planned = of;
		if (!planned || saving) return;
		saving = true;
		const { id } = planned;
		const was = asPlanned(planned);
		const to = people.find((one) => one.id === has) ?? null;
		const place = { what, lift: lift.trim(), note: note.trim() };
		const promise = { due: due || null, words: words.trim() };
		let good = true;
		// What is stored is no change any more, should something after it be refused.
		if (promise.words !== was.words) {
			good = (await sendEntry(id, 'promised', promise)) !== false;
			if (good) {
				of = { ...planned, promise };
				words = promisedWords(of);
			}
		}
		if (good && has !== was.has) {
			good = (await sendEntry(id, 'assigned', { to })) !== false;
			if (good && of) of = { ...of, assigned: to };
		}
		if (good && (place.what !== was.what || place.lift !== was.lift || place.note !== was.note))
			good = (await sendEntry(id, 'waiting', place)) !== false;
		saving = false;
		if (!good) return;
		dialog.close();
		onsaved();
	}
</script>

<dialog bind:this={dialog} class="modal" aria-labelledby="who-when" onclose={discard}>
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
			<button type="button" class="act-quiet" onclick={() => dialog.close()}>Discard</button>
		</div>
	</form>
</dialog>
