<script lang="ts">
	/** What to look at, drawn: the parts in ink, the place to look at in turmeric's shape, a heavy ring around it. */
	let { what, label }: { what: string; label: string } = $props();
	const TEETH = Array.from({ length: 9 }, (_, i) => i);
</script>

{#snippet sensor(x: number, y: number)}
	<path
		d="M{x - 16} {y - 64} h32 v44 h-6 v20 h-20 v-20 h-6 Z"
		class="fill-base-100 stroke-ink"
		stroke-width="3"
	/>
	<path d="M{x} {y - 64} c0 -22 18 -14 22 -34" class="fill-none stroke-ink" stroke-width="4" />
{/snippet}
{#snippet ring(y: number, gone: number)}
	<path d="M20 {y + 26} H300" class="stroke-ink" stroke-width="3" />
	{#each TEETH as i (i)}
		{#if i !== gone}<path
				d="M{28 + i * 30} {y + 26} v-24 h14 v24"
				class="fill-base-300 stroke-ink"
				stroke-width="2.5"
			/>{/if}
	{/each}
{/snippet}
{#snippet here(x: number, y: number, r: number)}
	<circle cx={x} cy={y} {r} class="fill-none stroke-suspect-mark" stroke-width="4" stroke-dasharray="7 5" />
{/snippet}

<svg viewBox="0 0 320 190" class="w-full max-w-80" role="img" aria-label={label}>
	{#if what === 'gap'}
		{@render ring(136, -1)}
		{@render sensor(155, 120)}
		<path d="M100 120 H210 M100 137 H210" class="stroke-ink-2" stroke-width="1.5" stroke-dasharray="3 4" />
		<path
			d="M222 108 V120 M222 149 V137 M218 115 l4 5 l4 -5 M218 142 l4 -5 l4 5"
			class="fill-none stroke-ink"
			stroke-width="2"
		/>
		<text x="234" y="134" class="fill-ink" font-size="17">gap</text>
		{@render here(155, 128, 30)}
	{:else if what === 'ring'}
		{@render ring(120, 4)}
		{@render sensor(95, 104)}
		<path d="M212 152 l8 10 l-4 10 l10 12" class="fill-none stroke-ink" stroke-width="2.5" />
		{@render here(155, 134, 26)}
	{:else if what === 'encoder'}
		<path
			d="M60 150 A100 100 0 0 1 260 150 L226 150 A66 66 0 0 0 94 150 Z"
			class="fill-base-100 stroke-ink"
			stroke-width="3"
		/>
		{#each TEETH as i (i)}
			{@const angle = Math.PI - (i * Math.PI) / 8}
			<path
				d="M{160 + 68 * Math.cos(angle)} {150 - 68 * Math.sin(angle)} L{160 + 98 * Math.cos(angle)} {150 -
					98 * Math.sin(angle)}"
				class="stroke-ink"
				stroke-width={i % 2 ? 9 : 3}
			/>
		{/each}
		<path d="M146 122 l14 -14 l14 14 M160 108 V150" class="fill-none stroke-ink-2" stroke-width="2.5" />
		<text x="160" y="178" text-anchor="middle" class="fill-ink" font-size="16">this side to the sensor</text>
		{@render here(215, 80, 24)}
	{:else if what === 'seating'}
		<path
			d="M20 96 H130 V170 H20 Z M190 96 H300 V170 H190 Z"
			class="fill-base-300 stroke-ink"
			stroke-width="3"
		/>
		<path d="M120 96 H246 V78 H120 Z" class="fill-base-100 stroke-ink" stroke-width="3" />
		<path d="M140 78 V44 H180 V78 M140 96 V156 H180 V96" class="fill-base-100 stroke-ink" stroke-width="3" />
		<path d="M214 78 V66 H234 V78 M224 96 V140" class="fill-none stroke-ink" stroke-width="4" />
		<path d="M130 100 l6 8 l-5 10 l6 10 l-6 12" class="fill-none stroke-ink" stroke-width="2" />
		{@render here(150, 100, 30)}
	{:else if what === 'bracket'}
		<path d="M40 160 V60 H150" class="fill-none stroke-ink" stroke-width="12" stroke-linejoin="round" />
		<path d="M150 60 L206 84" class="fill-none stroke-ink" stroke-width="12" />
		<path d="M150 60 H212" class="fill-none stroke-ink-2" stroke-width="2.5" stroke-dasharray="5 5" />
		<circle cx="40" cy="150" r="9" class="fill-base-100 stroke-ink" stroke-width="3" />
		<circle cx="206" cy="84" r="11" class="fill-base-100 stroke-ink" stroke-width="3" />
		{@render here(156, 64, 30)}
	{:else if what === 'lead'}
		<path d="M20 40 C90 40 80 120 150 120 S240 60 300 70" class="fill-none stroke-ink" stroke-width="6" />
		<path d="M110 190 L188 128" class="stroke-ink" stroke-width="16" />
		<path d="M138 116 l8 8 M146 112 l8 9 M154 112 l8 7" class="stroke-base-100" stroke-width="3" />
		<text x="196" y="176" class="fill-ink" font-size="16">axle</text>
		{@render here(150, 120, 28)}
	{:else if what === 'clips'}
		<path
			d="M20 90 H120 C150 90 160 140 190 140 S230 90 300 90"
			class="fill-none stroke-ink"
			stroke-width="6"
		/>
		{#each [70, 250] as x (x)}<path
				d="M{x - 12} 112 V82 a12 12 0 0 1 24 0 V112 Z"
				class="fill-none stroke-ink"
				stroke-width="3.5"
			/>{/each}
		<path d="M150 112 V84 a12 12 0 0 1 20 -8" class="fill-none stroke-ink" stroke-width="3.5" />
		{@render here(164, 108, 36)}
	{:else if what === 'pins'}
		<path d="M40 40 H180 V150 H40 Z" class="fill-base-100 stroke-ink" stroke-width="3" />
		<path d="M40 75 H270 M40 115 H150" class="stroke-ink" stroke-width="7" />
		<path d="M180 115 H210" class="stroke-ink-2" stroke-width="2.5" stroke-dasharray="5 5" />
		<text x="222" y="120" class="fill-ink" font-size="16">pushed back</text>
		<text x="222" y="60" class="fill-ink" font-size="16">as it should</text>
		{@render here(166, 115, 26)}
	{:else}
		<path
			d="M30 50 H140 V150 H30 Z M180 60 H290 V140 H180 Z"
			class="fill-base-100 stroke-ink"
			stroke-width="3"
		/>
		<path d="M140 84 H180 M140 116 H180" class="stroke-ink" stroke-width="7" />
		<path
			d="M160 96 c-8 12 -10 16 -10 21 a10 10 0 0 0 20 0 c0 -5 -2 -9 -10 -21 Z"
			class="fill-base-300 stroke-ink"
			stroke-width="2.5"
		/>
		<path d="M140 52 V150" class="stroke-ink" stroke-width="6" />
		{@render here(160, 106, 34)}
	{/if}
</svg>
