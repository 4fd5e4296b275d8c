<script lang="ts">
	import { refreshCase } from '$lib/ui/refresh';
	import { upperFirst } from '$lib/case/words';
	import { page } from '$app/state';
	import VehicleFields from '$lib/ui/VehicleFields.svelte';
	import type { ComponentProps } from 'svelte';

	let { data } = $props();

	const keep: ComponentProps<typeof VehicleFields>['keep'] = async (told, entryId) => {
		const response = await fetch(`/cases/${data.case.id}/vehicle`, {
			method: 'PUT',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ entryId, ...told })
		});
		if (response.ok) {
			await refreshCase();
			return null;
		}
		const answer = (await response.json().catch(() => null)) as { message?: string } | null;
		return answer?.message ?? 'The server refused. What you typed is kept here.';
	};
</script>

<svelte:head><title>{data.case.number} The vehicle · Jaldi</title></svelte:head>
<section class="pt-5">
	<h1 class="text-2xl font-bold">
		{upperFirst(data.name)}: {data.assumed === 0
			? 'all of it is known'
			: `${data.assumed} things are only assumed`}
	</h1>
	<p class="mt-1 text-ink-2">
		Assumed is what is usual on such a vehicle. Put right what you look up or see, or tick it where it is so:
		it stays with this type of vehicle for the next case.
	</p>
	<a
		class="inline-flex min-h-11 items-center underline underline-offset-4"
		href="/vehicles/{data.case.vehicle.id}">Every visit of this vehicle</a
	>
</section>
<VehicleFields
	sections={data.sections}
	at={page.url.searchParams.get('at')}
	mayWrite={data.canWrite && !data.case.signed}
	draftKey="jaldi:draft:{data.case.id}:vehicle"
	{keep}
/>
