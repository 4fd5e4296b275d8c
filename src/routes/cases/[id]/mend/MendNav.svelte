<script lang="ts">
	import WaysNav from '$lib/ui/WaysNav.svelte';

	/** What there is to do at this station, in the order in which it is done. */
	let { caseId, here }: { caseId: string; here: string } = $props();
	const WAYS = [
		{ path: '/plan', name: 'Before it begins', key: 'b' },
		{ path: '/estimate', name: 'Estimate', key: 'e' },
		{ path: '/fit', name: 'Fit', key: 'i' },
		{ path: '', name: 'Repair', key: 'm' },
		{ path: '/calibrate', name: 'Calibrate', key: 'c' }
	];
</script>

<WaysNav label="Mending" ways={WAYS} {here} hrefOf={(path) => `/cases/${caseId}/mend${path}`} />
