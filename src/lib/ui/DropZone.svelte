<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A part of a page onto which a file can be dropped; its content may also open the browser's own choice of files. */
	let {
		label,
		chooserLabel,
		accept,
		busy = false,
		class: classes = '',
		onfile,
		children
	}: {
		label: string;
		chooserLabel: string;
		accept?: string;
		busy?: boolean;
		class?: string;
		onfile: (file: File) => void;
		/** Is handed the function that opens the choice. */
		children: Snippet<[() => void]>;
	} = $props();
	let over = $state(false);
	let chooser: HTMLInputElement;

	function take(files: FileList | null | undefined) {
		const file = files?.[0];
		if (file && !busy) onfile(file);
	}
</script>

<div
	class="{classes} {over ? 'outline-3 outline-offset-4 outline-ink outline-dashed' : ''}"
	role="group"
	aria-label={label}
	ondragover={(event) => {
		event.preventDefault();
		over = true;
	}}
	ondragleave={() => (over = false)}
	ondrop={(event) => {
		event.preventDefault();
		over = false;
		take(event.dataTransfer?.files);
	}}
>
	{@render children(() => chooser.click())}
	<input
		bind:this={chooser}
		type="file"
		class="hidden"
		{accept}
		aria-label={chooserLabel}
		onchange={(event) => {
			take(event.currentTarget.files);
			event.currentTarget.value = '';
		}}
	/>
</div>
