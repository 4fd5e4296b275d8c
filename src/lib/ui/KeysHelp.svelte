<script lang="ts">
	/** What the keys do; opened with `?`. */
	let { keys }: { keys: [string, string][] } = $props();
	let dialog: HTMLDialogElement;
	export const open = () => dialog.showModal();
</script>

<dialog bind:this={dialog} class="modal" aria-label="Keys">
	<div class="modal-box border border-ink bg-base-100 shadow-none">
		<h2 class="text-xl font-bold">Keys</h2>
		<dl class="mt-3">
			{#each keys as [key, does] (key)}
				<div class="hair flex items-center gap-4 py-2">
					<dt class="w-20"><kbd class="rounded border border-ink px-2 font-mono">{key}</kbd></dt>
					<dd>{does}</dd>
				</div>
			{/each}
		</dl>
		<form method="dialog" class="mt-4"><button class="act">Close</button></form>
	</div>
</dialog>
