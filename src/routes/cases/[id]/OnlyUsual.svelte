<script lang="ts">
	/** Said where something is only usual on such vehicles, or not told at all: a press opens its field. */
	interface Props {
		path: string | null;
		caseId: string;
		says?: string;
	}
	let { path, caseId, says = 'usually; not known for this one' }: Props = $props();
</script>

{#if path}<a
		class="underline decoration-dotted underline-offset-4"
		href="/cases/{caseId}/vehicle?at={encodeURIComponent(path)}">{says}</a
	>{/if}
