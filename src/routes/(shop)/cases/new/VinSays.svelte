<script lang="ts">
	import { vinSays } from '$lib/core/vehicle/vin';

	/** What a vehicle's number says of itself, and no more. */
	let { vin }: { vin: string } = $props();
	const says = $derived(vinSays(vin, new Date().getFullYear()));
</script>

<p class="text-ink-2" role="status">
	{#if says.ok}
		Built in {says.value.region}.
		{#if says.value.checkDigit === 'fits'}Its check digit fits.
		{:else if says.value.checkDigit === 'wrong'}<strong class="text-ink"
				>Its check digit does not fit: a sign was copied wrongly.</strong
			>
		{:else}Its region uses no check digit.{/if}
		{#if says.value.years.length > 0}By the mark of the year, where its maker uses one: {says.value.years.join(
				' or '
			)}.{/if}
	{:else}
		{says.error}
	{/if}
</p>
