<script lang="ts">
	/** Takes a file by drop or by choice, or text by paste; says what it would not take. */
	let {
		label,
		hint,
		text = $bindable(''),
		ontext,
		onfile,
		busy = false
	}: {
		label: string;
		hint: string;
		text: string;
		ontext: (text: string, name: string) => void;
		onfile: (file: File) => void;
		busy?: boolean;
	} = $props();
	let over = $state(false);
	let chooser: HTMLInputElement;

	function take(files: FileList | null | undefined) {
		const file = files?.[0];
		if (file && !busy) onfile(file);
	}
	/** The new text is in the field only after the event. */
	const pasted = () => setTimeout(() => ontext(text, ''));
</script>

<div
	class="mt-3 {over ? 'outline-3 outline-offset-4 outline-ink outline-dashed' : ''}"
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
	<textarea
		class="field num"
		rows="4"
		aria-label={label}
		placeholder={hint}
		spellcheck="false"
		disabled={busy}
		bind:value={text}
		onpaste={pasted}></textarea>
	<div class="mt-2 flex flex-wrap items-center gap-3">
		<button
			type="button"
			class="act-quiet"
			disabled={busy || text.trim() === ''}
			onclick={() => ontext(text, '')}>Look through it</button
		>
		<button type="button" class="act-quiet" disabled={busy} onclick={() => chooser.click()}
			>Choose a file</button
		>
		<input
			bind:this={chooser}
			type="file"
			class="hidden"
			aria-label="File to look through"
			onchange={(event) => {
				take(event.currentTarget.files);
				event.currentTarget.value = '';
			}}
		/>
	</div>
</div>
