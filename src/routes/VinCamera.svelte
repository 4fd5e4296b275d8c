<script lang="ts">
	import Camera from '@lucide/svelte/icons/camera';
	import { vinIn } from '$lib/core/vehicle/vin';
	import { printedCodes } from './printedCodes';

	/** The vehicle's number from the code that is printed beside it: by the camera of a phone, or from a picture. */
	let { onvin }: { onvin: (vin: string) => void } = $props();
	let looks = $state(false);
	let said = $state('');

	async function look(event: Event & { currentTarget: HTMLInputElement }) {
		const field = event.currentTarget;
		const [photo] = field.files ?? [];
		if (!photo) return;
		looks = true;
		said = '';
		try {
			const codes = await printedCodes(photo, (text) => vinIn(text) !== null);
			const vin = codes.map(vinIn).find((one) => one !== null);
			if (vin) {
				onvin(vin.vin);
				said = `Read: ${vin.vin}. Hold it against the plate.`;
			} else
				said =
					codes.length > 0
						? 'There is a code, and no vehicle’s number in it.'
						: 'No code is seen in it: closer, straight on, without a shadow.';
		} catch {
			said = 'This is no picture that can be read.';
		} finally {
			looks = false;
			// The same picture once more is asked for anew.
			field.value = '';
		}
	}
</script>

<div class="mt-1 flex flex-wrap items-center gap-x-4">
	<label class="act-quiet inline-flex cursor-pointer items-center gap-2 has-focus-visible:outline-3">
		<Camera size={20} aria-hidden="true" />{looks ? 'Looking …' : 'Read it with the camera'}
		<input
			class="sr-only"
			type="file"
			accept="image/*"
			capture="environment"
			disabled={looks}
			onchange={(event) => void look(event)}
		/>
	</label>
	<span role="status">{said}</span>
</div>
