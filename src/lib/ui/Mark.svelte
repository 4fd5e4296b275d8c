<script lang="ts">
	/** One of the four marks, told apart by shape: disc, half disc, notched square, hollow ring. */
	let { state, size = 20 }: { state: 'good' | 'suspect' | 'bad' | 'open'; size?: number } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" class="shrink-0">
	{#if state === 'good'}
		<circle cx="10" cy="10" r="9.5" class="fill-good" />
	{:else if state === 'suspect'}
		<circle cx="10" cy="10" r="8.5" class="fill-base-100 stroke-suspect-mark" stroke-width="2.4" />
		<path d="M10 1.5 A8.5 8.5 0 0 1 10 18.5 Z" class="fill-suspect-mark" />
	{:else if state === 'bad'}
		<path d="M0.5 0.5 H19.5 L13 10 L19.5 19.5 H0.5 Z" class="fill-bad" />
	{:else}
		<circle cx="10" cy="10" r="8.3" class="fill-base-100 stroke-ink-2" stroke-width="2" />
	{/if}
</svg>
