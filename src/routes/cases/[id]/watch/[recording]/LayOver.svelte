<script lang="ts">
	import type { RecordingView } from './recordingView.svelte';

	/** Another recording of this case laid over this one: before and after a repair. */
	let {
		view,
		others,
		marks
	}: {
		view: RecordingView;
		others: { id: string; name: string; marks: { atS: number; label: string }[] }[];
		marks: { atS: number; label: string }[];
	} = $props();
	let id = $state('');
	let by = $state<'speed' | 'mark' | 'start'>('speed');
	const other = $derived(others.find((one) => one.id === id));
	const mayMark = $derived(marks.length > 0 && (other?.marks.length ?? 0) > 0);

	function lay() {
		const [here] = marks;
		const [there] = other?.marks ?? [];
		const how =
			by === 'mark' && here && there
				? { by, hereS: here.atS, thereS: there.atS }
				: { by: by === 'mark' ? ('start' as const) : by };
		void view.layOver(id === '' ? null : id, how);
	}
</script>

<div class="mt-3 flex flex-wrap items-end gap-4">
	<label>
		<span class="text-sm text-ink-2">Lay over it</span>
		<select class="field" bind:value={id} onchange={lay}>
			<option value="">nothing</option>
			{#each others as one (one.id)}<option value={one.id}>{one.name}</option>{/each}
		</select>
	</label>
	{#if id !== ''}
		<label>
			<span class="text-sm text-ink-2">Aligned by</span>
			<select class="field" bind:value={by} onchange={lay}>
				<option value="speed">the speed of both</option>
				<option value="mark" disabled={!mayMark}>the first mark of each</option>
				<option value="start">their starts</option>
			</select>
		</label>
		{#if view.over}<p class="pb-3 text-ink-2">
				moved by <span class="num">{view.over.shiftS.toFixed(2)}</span> s, drawn in teal
			</p>{/if}
	{/if}
</div>
