<script lang="ts">
	import '../app.css';
	import { Toaster } from 'svelte-sonner';

	let { children, data } = $props();
	$effect(() => {
		document.documentElement.dataset.theme = data.theme;
	});
</script>

{@render children()}
<Toaster
	position="bottom-left"
	toastOptions={{
		style: 'background: var(--color-neutral); color: var(--color-neutral-content); border: 0; font: inherit;'
	}}
/>
