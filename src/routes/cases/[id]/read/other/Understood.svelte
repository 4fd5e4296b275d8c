<script lang="ts">
	import type { WrittenCode } from '$lib/case/codes/otherTool';
	import { looksLikeBytes } from '$lib/core/codes/ownNotation';
	import { codeCalled } from '$lib/core/codes/spelling';
	import { codeOfId, codeName } from '$lib/core/codes/codeId';

	/** What was understood of the codes that were written down at a module, before they are saved. */
	interface Props {
		codes: readonly WrittenCode[];
		/** Six hex digits were meant as the bytes of a code. */
		onbytes: (written: string) => void;
	}
	let { codes, onbytes }: Props = $props();
	const asBytes = (written: string) => codeName(written);
	const meant = ({ code }: WrittenCode) =>
		code.kind === 'own' && looksLikeBytes(code.written) ? codeOfId(code.written) : null;
</script>

<ul class="mt-1">
	{#each codes as one, nth (nth)}
		{@const { code, words, told } = one}
		<li class="flex flex-wrap items-center gap-x-2 py-0.5">
			<span class="num font-semibold"
				>{codeCalled(code.kind === 'dtc' ? { ...code, status: null } : code)}</span
			>
			{#if told}<span>“{told}”</span>{/if}
			<span class="text-ink-2"
				>{[code.kind === 'own' ? 'in the maker’s own notation' : '', ...words]
					.filter(Boolean)
					.join(', ')}</span
			>
			{#if code.kind === 'own' && meant(one)}
				<button type="button" class="act-quiet" onclick={() => onbytes(code.written)}
					>It means {asBytes(code.written)}</button
				>
			{/if}
		</li>
	{/each}
</ul>
