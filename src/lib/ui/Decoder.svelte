<script lang="ts">
	import { upperFirst } from '../case/words';
	import { Command } from 'bits-ui';
	import { onMount, untrack } from 'svelte';
	import type { DecoderAnswer, FoundByWords } from '../case/codes/decoderAnswer';

	/** Any spelling of a code, or words: answers while one types, by keyboard alone. */
	let {
		ask,
		onopen,
		onadd = null,
		addTo = null,
		start = ''
	}: {
		ask: (text: string) => Promise<DecoderAnswer>;
		onopen: (href: string) => void;
		/** Adds a code, as written, to the case; none outside of a case. */
		onadd?: ((text: string) => void) | null;
		addTo?: string | null;
		start?: string;
	} = $props();

	let text = $state(untrack(() => start));
	let answer = $state<DecoderAnswer | null>(null);
	let chosen = $state('');
	let lost = $state(false);
	/** Nothing stands under an empty field. */
	const shown = $derived(text.trim() === '' ? null : answer);
	let asked = 0;
	let input = $state<HTMLInputElement | null>(null);

	/** The text that the answer on the screen is for. */
	let answeredFor: string | null = null;
	let looking: Promise<void> = Promise.resolve();

	/** Only the answer to what stands in the field now is shown. */
	async function look(wanted: string) {
		const mine = ++asked;
		try {
			const came = await ask(wanted);
			if (mine !== asked) return;
			answer = came;
			answeredFor = wanted;
			lost = false;
			chosen = came.codes[0]?.slug ?? (came.found[0] ? valueOf(came.found[0]) : '');
		} catch {
			if (mine === asked) lost = true;
		}
	}
	$effect(() => {
		looking = look(text);
	});
	onMount(() => {
		input?.focus();
		input?.setSelectionRange(text.length, text.length);
	});

	const valueOf = (found: FoundByWords) => `${found.href} ${found.from}`;
	function openChosen() {
		const code = answer?.codes.find(({ slug }) => slug === chosen);
		const found = answer?.found.find((one) => valueOf(one) === chosen);
		if (code) onopen(`/codes/${code.slug}`);
		else if (found) onopen(found.href);
	}
	function addChosen() {
		const written = answer?.codes.length
			? text.trim()
			: answer?.found.find((found) => valueOf(found) === chosen)?.text;
		if (written) onadd?.(written);
	}
	/** Enter means what is typed, not what was answered a moment before: it waits for its own answer. */
	async function keys(event: KeyboardEvent) {
		if (event.key !== 'Enter' || event.isComposing) return;
		event.preventDefault();
		event.stopPropagation();
		const adds = event.shiftKey && onadd !== null;
		if (answeredFor !== text) await looking;
		if (answeredFor !== text) return;
		if (adds) addChosen();
		else openChosen();
	}
	const GROUPS = {
		code: 'Codes',
		case: 'Cases of this shop',
		vehicle: 'Vehicles, with every visit',
		customer: 'Customers'
	};
	const EXAMPLES = [
		'C0035-14',
		'403514/2F',
		'SPN 789 FMI 5',
		'59 02 FF 40 35 14 2F',
		'lamp 3-4',
		'steering angle'
	];
	const row =
		'block cursor-pointer border-b border-rule px-3 py-2.5 data-selected:bg-raised data-selected:shadow-[inset_4px_0_0_var(--color-ink)]';
</script>

<Command.Root
	shouldFilter={false}
	bind:value={chosen}
	label="Code or words"
	loop
	class="flex min-h-0 flex-col"
>
	<Command.Input
		bind:value={text}
		bind:ref={input}
		onkeydowncapture={keys}
		class="field num text-xl!"
		placeholder="A code in any spelling, or words"
		autocomplete="off"
		autocapitalize="off"
		spellcheck="false"
	/>
	<div class="mt-2 min-h-0 flex-1 overflow-y-auto" aria-live="polite">
		{#if lost}
			<p class="px-3 py-3 font-semibold">The server cannot be reached. What you typed is kept here.</p>
		{:else if text.trim() === ''}
			<p class="px-3 py-3 text-ink-2">For example</p>
			<ul class="flex flex-wrap gap-2 px-3 pb-3">
				{#each EXAMPLES as example (example)}
					<li>
						<button type="button" class="act-quiet num" onclick={() => (text = example)}>{example}</button>
					</li>
				{/each}
			</ul>
		{:else if answer}
			{#if answer.alone}
				<p class="px-3 pt-3 text-ink-2">
					Without the server: what the shipped sources say, and nothing of this shop’s own.
				</p>
			{/if}
			{#if answer.trouble}
				<p class="px-3 py-3">
					<strong>No code.</strong>
					{upperFirst(answer.trouble)}.
				</p>
			{/if}
			{#if answer.byte}
				<div class="px-3 py-3">
					<p class="text-lg">
						As a suffix <span class="num">-{answer.byte.text}</span>: <strong>{answer.byte.suffix}</strong>
					</p>
					<p class="mt-1">{answer.byte.meaning}</p>
					<p class="text-ink-2">First: {answer.byte.checkFirst}</p>
					<p class="mt-3 text-lg">
						As a status <span class="num">{answer.byte.text}</span>: <strong>{answer.byte.status}</strong>
					</p>
				</div>
			{/if}
			{#if answer.what}
				<p class="px-3 pt-2 text-ink-2">
					{upperFirst(answer.what)}:
					{answer.codes.length === 0
						? 'no codes in it'
						: `${answer.codes.length} ${answer.codes.length === 1 ? 'code' : 'codes'}`}
				</p>
			{/if}
			{#if answer.codes.length === 0 && answer.found.length === 0 && !answer.trouble && !answer.what && !answer.byte}
				<p class="px-3 py-3">Nothing here goes by these words. Fewer or other words may find it.</p>
			{/if}
		{/if}
		<Command.List
			><Command.Viewport>
				{#each shown?.codes ?? [] as code, i (i)}
					<Command.Item value={code.slug} onSelect={() => onopen(`/codes/${code.slug}`)} class={row}>
						<p class="text-lg leading-tight">
							<span class="num">{code.text}</span> <strong class="pl-2">{code.title}</strong>
						</p>
						{#if code.failureType}
							<p class="mt-1">
								<strong>{upperFirst(code.failureType)}.</strong>
								{code.meaning}
							</p>
							<p class="text-ink-2">First: {code.checkFirst}</p>
						{/if}
						{#if code.state}<p class="font-semibold">
								{upperFirst(code.state)}.
							</p>{/if}
					</Command.Item>
				{/each}
				{#each shown?.found ?? [] as found, nth (nth)}
					{#if found.group !== shown?.found[nth - 1]?.group}
						<p class="px-3 pt-4 pb-1 text-sm font-semibold" role="presentation">{GROUPS[found.group]}</p>
					{/if}
					<Command.Item value={valueOf(found)} onSelect={() => onopen(found.href)} class={row}>
						<span class="flex flex-wrap items-baseline gap-x-3">
							<span class="num">{found.text}</span>
							<span class="min-w-0 flex-1 font-semibold">{found.title}</span>
							<span class="text-sm text-ink-2">{found.from}</span>
						</span>
						{#if found.because}<span class="block text-sm text-ink-2">“{found.because}”</span>{/if}
					</Command.Item>
				{/each}
			</Command.Viewport></Command.List
		>
	</div>
	<p class="flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-rule px-3 pt-3 text-sm text-ink-2">
		<span class="of-keys"><kbd class="key">↑ ↓</kbd> choose</span>
		<span class="of-keys"><kbd class="key">↵</kbd> open</span>
		{#if onadd}<span class="of-keys"><kbd class="key">⇧ ↵</kbd> add to {addTo ?? 'this case'}</span>{/if}
	</p>
</Command.Root>
