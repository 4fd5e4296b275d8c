<script lang="ts">
	import { keysHere } from './keysHere.svelte';

	/** What the keys do, those of the page first; opened with `?`. */
	let { keys }: { keys: [string, string][] } = $props();
	let dialog: HTMLDialogElement;
	export const open = () => dialog.showModal();
</script>

<dialog bind:this={dialog} class="modal" aria-label="Keys">
	<div class="modal-box border border-ink bg-base-100 shadow-none">
		<h2 class="text-xl font-bold">Keys</h2>
		<dl class="mt-3">
			{#each [...keysHere, ...keys, ['Esc', 'out of a field: keys work again'] as [string, string]] as [key, does], nth (nth)}
				<div class="hair flex items-center gap-4 py-2">
					<dt class="w-24"><kbd class="rounded border border-ink px-2 font-mono">{key}</kbd></dt>
					<dd>{does}</dd>
				</div>
			{/each}
		</dl>
		<p class="mt-3 text-ink-2">
			Single keys can be switched off under <a class="underline underline-offset-4" href="/me">your name</a>.
		</p>
		<form method="dialog" class="mt-4"><button class="act">Close</button></form>
	</div>
</dialog>
