<script lang="ts">
	import { CAR_POSITIONS } from '../../../../library/positions';
	import { positionWords } from '$lib/case/words';
	import TyreSums from '$lib/ui/TyreSums.svelte';

	const fitted = CAR_POSITIONS.map((position) => ({
		position,
		axle: position.startsWith('front') ? 1 : 2,
		side: position.endsWith('left') ? ('left' as const) : ('right' as const),
		size: '',
		treadMm: null,
		pressureShare: null
	}));
</script>

<svelte:head><title>Tyres · Jaldi</title></svelte:head>
<h1 class="mb-4 text-2xl leading-tight font-bold">Tyres against each other</h1>
<TyreSums {fitted} nameOf={positionWords} drive={null} />
