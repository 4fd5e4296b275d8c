<script lang="ts">
	import Act from '$lib/ui/Act.svelte';
	import type { PayloadOf } from '$lib/case/entries/entry';
	import { findCodes, type FoundCode, type SpanKind } from '$lib/core/codes/findCodes';
	import { formatSpelling } from '$lib/core/codes/spelling';
	import { statusPhrase } from '$lib/core/codes/status';
	import { titlesOf } from '../../../decoderClient';

	/** What was found in a text and what was passed over, side by side, before anything is saved. */
	interface Props {
		text: string;
		name: string;
		saving: boolean;
		onsave: (payload: PayloadOf<'codes-reported'>) => void;
		ondrop: () => void;
	}
	let { text, name, saving, onsave, ondrop }: Props = $props();
	const found = $derived(findCodes(text));
	let left = $state<string[]>([]);
	let source = $state('');
	let titles = $state<Record<string, string>>({});
	const keyOf = (module: number, code: number) => `${module}/${code}`;
	const plain = ({ code }: FoundCode) =>
		formatSpelling(code.kind === 'dtc' ? { ...code, status: null } : code);
	const chosen = $derived(found.codes - left.length);

	$effect(() => {
		source = name || 'print-out';
		left = [];
	});
	$effect(() => {
		const wanted = [...new Set(found.modules.flatMap((module) => module.codes.map(plain)))];
		titlesOf(wanted).then(
			(came) => (titles = came),
			// Without the server the codes are shown without their words.
			() => undefined
		);
	});

	const MARKED: Record<SpanKind, string> = {
		code: 'font-bold underline decoration-2 underline-offset-4',
		status: 'underline decoration-dotted decoration-2 underline-offset-4',
		heading: 'font-bold',
		value: 'underline decoration-1 underline-offset-4'
	};
	/** A line in pieces: understood ones with what they are, the rest as it is. */
	function pieces(line: (typeof found.lines)[number]) {
		const parts: { text: string; as: SpanKind | null }[] = [];
		let at = 0;
		for (const { from, to, as } of line.spans) {
			if (from > at) parts.push({ text: line.text.slice(at, from), as: null });
			parts.push({ text: line.text.slice(Math.max(from, at), to), as });
			at = Math.max(at, to);
		}
		if (at < line.text.length) parts.push({ text: line.text.slice(at), as: null });
		return parts;
	}
	const MOST_LINES = 400;

	function save() {
		const modules = found.modules.map((module, m) => {
			const kept = module.codes.map((_, c) => !left.includes(keyOf(m, c)));
			// Values follow the codes that stay: their place in the list changes with them.
			const place = (old: number | null) => (old === null ? null : kept.slice(0, old).filter(Boolean).length);
			return {
				name: module.name,
				codes: module.codes
					.filter((_, c) => kept[c])
					.map(({ code, spelling, line, words, told }) => ({ code, spelling, line, words, told })),
				values: module.values
					.filter((value) => value.ofCode === null || kept[value.ofCode])
					.map((value) => ({ ...value, ofCode: place(value.ofCode) }))
			};
		});
		onsave({
			origin: 'pasted',
			sourceName: source.trim(),
			text,
			modules: modules.filter((module) => module.codes.length > 0 || module.values.length > 0)
		});
	}
	const headline = $derived(
		found.codes === 0
			? 'No code was found in it'
			: `${found.codes} ${found.codes === 1 ? 'code' : 'codes'} found, ${found.ignored} ${found.ignored === 1 ? 'line' : 'lines'} passed over`
	);
</script>

<section class="mt-4" aria-label="What was understood">
	<h3 class="text-lg font-bold">{headline}</h3>
	<div class="mt-2 grid gap-x-8 gap-y-4 xl:grid-cols-2">
		<div>
			{#if found.codes === 0}
				<p>
					Codes are written like C0045-13, 404513/2F or SPN 789 FMI 5. The text is still in the field above.
				</p>
			{/if}
			{#each found.modules as module, m (m)}
				<div class="hair py-2">
					<p class="font-semibold">{module.name ?? 'No module named'}</p>
					{#each module.codes as code, c (c)}
						<label class="flex min-h-11 cursor-pointer items-start gap-3 py-1.5">
							<input
								type="checkbox"
								class="checkbox mt-0.5"
								checked={!left.includes(keyOf(m, c))}
								onchange={(event) =>
									(left = event.currentTarget.checked
										? left.filter((key) => key !== keyOf(m, c))
										: [...left, keyOf(m, c)])}
							/>
							<span>
								<span class="num">{plain(code)}</span>
								<strong class="pl-1">{titles[plain(code)] ?? code.told}</strong>
								<span class="block text-sm text-ink-2">
									{[
										code.code.kind === 'dtc' && code.code.status !== null
											? statusPhrase(code.code.status)
											: null,
										code.words.length > 0 ? `“${code.words.join(', ')}”` : null,
										`line ${code.line}`,
										...module.values
											.filter((v) => v.ofCode === c)
											.map((v) => `${v.name} ${v.value} ${v.unit}`.trim())
									]
										.filter(Boolean)
										.join(' · ')}
								</span>
							</span>
						</label>
					{/each}
				</div>
			{/each}
			{#if found.codes > 0}
				<label class="mt-2 block"
					><span class="mb-1 block font-semibold">Where it comes from</span>
					<input class="field" maxlength="120" bind:value={source} /></label
				>
				<div class="mt-3 flex flex-wrap gap-3">
					<Act class="act" disabled={saving} whyNot={chosen === 0 ? 'Choose a code.' : null} onclick={save}
						>{saving ? 'Saving…' : `Save ${chosen} ${chosen === 1 ? 'code' : 'codes'}`}</Act
					>
					<button class="act-quiet" disabled={saving} onclick={ondrop}>Discard</button>
				</div>
			{/if}
		</div>
		<div class="min-w-0">
			<p class="text-sm text-ink-2">
				The text: <span class={MARKED.code}>code</span>, <span class={MARKED.status}>state</span>,
				<span class={MARKED.value}>value</span>, <span class={MARKED.heading}>module</span>; faint = passed
				over
			</p>
			<ol
				class="num mt-1 max-h-96 overflow-auto border-y border-rule py-2 text-sm"
				aria-label="The text, line by line"
			>
				{#each found.lines.slice(0, MOST_LINES) as line, i (i)}
					<li class="grid grid-cols-[2.5rem_1fr] [overflow-wrap:anywhere] whitespace-pre-wrap">
						<span class="text-ink-2">{i + 1}</span>
						<span class={line.spans.length === 0 ? 'text-ink-2 italic' : ''}
							>{#each pieces(line) as piece, n (n)}<span class={piece.as ? MARKED[piece.as] : ''}
									>{piece.text}</span
								>{/each}</span
						>
					</li>
				{/each}
			</ol>
			{#if found.lines.length > MOST_LINES}<p class="text-sm text-ink-2">
					The first {MOST_LINES} of {found.lines.length} lines; all of them were looked through.
				</p>{/if}
		</div>
	</div>
</section>
