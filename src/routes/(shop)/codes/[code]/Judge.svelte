<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import { ulid } from 'ulid';
	import { toast } from 'svelte-sonner';
	import type { SourceView } from '$lib/case/codes/codeSources';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import Field from '$lib/ui/Field.svelte';
	import { sendEntry } from '$lib/away/record';

	/** Writes on the case which source the measurements supported. */
	interface Props {
		code: string;
		failureType: string | null;
		sources: SourceView[];
		judged: PayloadOf<'source-judged'> | null;
		here: { id: string; number: string };
		onjudged: () => void;
	}
	let { code, failureType, sources, judged, here, onjudged }: Props = $props();
	let chosen = $state('');
	let because = $state('');
	let sending = $state(false);
	/** Kept until it is stored, so that a lost answer cannot store it twice. */
	let id = ulid();
	const says = ({ packId, name, title, setWhen }: SourceView) => ({
		packId,
		name,
		says: setWhen ? `${title}; set when ${setWhen}` : title
	});
	async function save(event: SubmitEvent) {
		event.preventDefault();
		const supported = sources.find((source) => source.packId === chosen);
		if (!supported || because.trim() === '') return;
		sending = true;
		const against = sources.filter((source) => source !== supported).map(says);
		const payload = { code, failureType, supported: says(supported), against, because: because.trim() };
		const sent = await sendEntry(here.id, 'source-judged', payload, id);
		if (sent) {
			id = ulid();
			because = '';
			if (sent === 'stored') toast.success(`Written on ${here.number}.`);
			onjudged();
		}
		sending = false;
	}
</script>

<section class="mt-6" aria-labelledby="judge">
	<h2 id="judge" class="font-bold">Which one do the measurements on {here.number} support?</h2>
	{#if judged}
		<p class="mt-1 border-l-4 border-ink pl-3">
			<strong>{judged.supported.name}.</strong>
			{judged.because}
		</p>
	{/if}
	<form class="mt-2 grid items-start gap-3 md:grid-cols-[16rem_1fr_auto]" onsubmit={save}>
		<select class="field" bind:value={chosen} aria-label="Source that was right" required>
			<option value="">choose a source</option>
			{#each sources as { packId, name }, nth (nth)}<option value={packId}>{name}</option>{/each}
		</select>
		<Field label="" hint="What was measured, and what it showed"
			><input class="field" bind:value={because} aria-label="Because" maxlength="300" required /></Field
		>
		<Act
			type="submit"
			class="act"
			disabled={sending}
			whyNot={chosen === '' ? 'Choose a source.' : because.trim() === '' ? 'Say why.' : null}
			>Write it down</Act
		>
	</form>
</section>
