<script lang="ts">
	import ComplaintSection from './ComplaintSection.svelte';
	import CustomerSection from './CustomerSection.svelte';
	import LampsSection from './LampsSection.svelte';
	import PlanLine from '$lib/ui/PlanLine.svelte';
	import TyresSection from './TyresSection.svelte';
	import VehicleSection from './VehicleSection.svelte';
	import WorkSection from './WorkSection.svelte';

	let { data } = $props();
</script>

<svelte:head><title>{data.case.number} Listen · Jaldi</title></svelte:head>
<h1 class="sr-only">What the customer says, and what the vehicle is</h1>
{#key data.case.id}
	<PlanLine planned={data.planned} {...data.planning} canWrite={data.canTakeIn && !data.case.signed} />
	<p>
		<a
			class="inline-flex min-h-11 items-center underline underline-offset-4"
			href="/cases/{data.case.id}/report.pdf?for=tag"
			target="_blank">Label for the key (PDF)</a
		>
	</p>
	<ComplaintSection
		saved={data.complaint}
		data={data.complaintForm}
		caseId={data.case.id}
		canWrite={data.canTakeIn}
	/>
	<CustomerSection
		saved={data.customer}
		named={data.customerNamed}
		before={data.customerBefore}
		data={data.customerForm}
		caseId={data.case.id}
		canWrite={data.canTakeIn && !data.case.signed}
	/>
	<VehicleSection
		saved={data.vehicle}
		data={data.vehicleForm}
		scanned={data.scanned}
		caseId={data.case.id}
		canWrite={data.canTakeIn}
	/>
	<LampsSection saved={data.lamps} data={data.lampsForm} caseId={data.case.id} canWrite={data.canTakeIn} />
	<TyresSection saved={data.tyres} data={data.tyresForm} caseId={data.case.id} canWrite={data.canTakeIn} />
	<WorkSection
		positions={data.positions}
		saved={data.work}
		data={data.workForm}
		caseId={data.case.id}
		canWrite={data.canTakeIn}
	/>
{/key}
