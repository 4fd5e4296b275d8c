<script lang="ts">
	import {
		drawRing,
		INNER_RADIUS,
		RING_SIZE,
		USUAL_LENGTH,
		type DrawnRing
	} from '$lib/core/scope/ringDrawing';

	/**
	 * One turn of a ring, tooth by tooth: how high each pulse stands, which are missing, where the ring runs out. It turns as the
	 * wheel turns past its sensor, from the tooth that the capture saw first.
	 */
	let {
		ring,
		marked,
		size = 340,
		explained = true
	}: { ring: DrawnRing; marked: readonly number[]; size?: number; explained?: boolean } = $props();
	const CENTRE = RING_SIZE / 2;
	const INNER = INNER_RADIUS;
	const TALL = USUAL_LENGTH;
	const drawing = $derived(drawRing(ring, marked));
	const places = $derived(drawing.places);
</script>

<figure class="m-0">
	<svg
		viewBox="-30 10 460 380"
		width={size}
		height={size}
		class="max-w-full"
		role="img"
		aria-label={drawing.says}
	>
		<circle cx={CENTRE} cy={CENTRE} r={INNER - 8} class="fill-none stroke-rule" stroke-width="1.5" />
		<circle
			cx={CENTRE}
			cy={CENTRE}
			r={INNER + TALL}
			class="fill-none stroke-rule"
			stroke-width="1.5"
			stroke-dasharray="2 5"
		/>
		{#each drawing.teeth as { there, bad, from, to }, nth (nth)}
			{#if there}
				<line
					x1={from.x}
					y1={from.y}
					x2={to.x}
					y2={to.y}
					stroke-width={drawing.width}
					class={bad ? 'stroke-suspect-mark' : 'stroke-ink'}
				/>
			{/if}
		{/each}
		{#each places.slice(0, 6) as { arc, mark, turnDeg, label, words }, nth (nth)}
			{#if arc}<path d={arc} class="fill-none stroke-bad" stroke-width="5" />{/if}
			<g transform="translate({mark.x} {mark.y}) rotate({turnDeg})">
				<path d="M-11 -10 H11 L4 0 L11 10 H-11 Z" class="fill-bad" />
			</g>
			<text
				x={label.x}
				y={label.y}
				text-anchor="middle"
				dominant-baseline="middle"
				class="num fill-ink"
				font-size="17"
				font-weight="700">{words}</text
			>
		{/each}
		<!-- The way the wheel turned, and where the capture began. -->
		<path d="M200 140 A60 60 0 0 1 260 200" class="fill-none stroke-ink-2" stroke-width="2" />
		<path d="M254 194 L260 203 L266 193" class="fill-none stroke-ink-2" stroke-width="2" />
		<line x1="200" y1="92" x2="200" y2="78" class="stroke-ink" stroke-width="2" />
		<text x="200" y="192" text-anchor="middle" class="num fill-ink" font-size="40" font-weight="700"
			>{ring.teeth}</text
		>
		<text x="200" y="216" text-anchor="middle" class="fill-ink-2" font-size="17">teeth</text>
		<text x="200" y="238" text-anchor="middle" class="fill-ink-2" font-size="17"
			>{ring.turns.toFixed(1)} turns</text
		>
	</svg>
	{#if explained}<figcaption class="max-w-sm text-sm text-ink-2">
			{#if places.length > 0}Counted the way the wheel turned, from the tooth that the capture saw first
				(top). Begin a capture with the wheel standing and a chalk mark at the sensor: then the top is your
				mark.{:else}Each line is a tooth, as long as its pulse is high.{/if}
		</figcaption>{/if}
</figure>
