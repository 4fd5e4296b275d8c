<script lang="ts">
	import type { RingMap } from '$lib/core/scope/ringMap';

	/**
	 * One turn of a ring, tooth by tooth: how high each pulse stands, which are missing, where the ring runs out. It turns as the
	 * wheel turns past its sensor, from the tooth that the capture saw first.
	 */
	let { ring, marked, size = 340 }: { ring: RingMap; marked: readonly number[]; size?: number } = $props();
	const CENTRE = 200;
	const INNER = 96;
	const TALL = 52;
	const MOST = 1.8;
	const angleOf = (tooth: number) => (2 * Math.PI * tooth) / ring.teeth - Math.PI / 2;
	const point = (tooth: number, radius: number) => ({
		x: CENTRE + radius * Math.cos(angleOf(tooth)),
		y: CENTRE + radius * Math.sin(angleOf(tooth))
	});
	const teeth = $derived(
		Array.from({ length: ring.teeth }, (_, tooth) => {
			const height = Math.min(MOST, ring.height[tooth] ?? 0);
			const seen = ring.seen[tooth] ?? 0;
			const bad = marked.includes(tooth) || seen < 0.5;
			return {
				tooth,
				seen,
				bad,
				from: point(tooth, INNER),
				to: point(tooth, INNER + TALL * Math.max(0.08, height))
			};
		})
	);
	/** Neighbours that are bad are one place on the ring. */
	const places = $derived.by(() => {
		const bad = teeth.filter((one) => one.bad).map(({ tooth }) => tooth);
		const runs: { from: number; to: number }[] = [];
		for (const tooth of bad) {
			const last = runs.at(-1);
			if (last && tooth === last.to + 1) last.to = tooth;
			else runs.push({ from: tooth, to: tooth });
		}
		const [first, last] = [runs[0], runs.at(-1)];
		// A run may go on over the top.
		if (first && last && runs.length > 1 && first.from === 0 && last.to === ring.teeth - 1) {
			first.from = last.from - ring.teeth;
			runs.pop();
		}
		return runs;
	});
	const placeWords = ({ from, to }: { from: number; to: number }) =>
		from === to ? `${degrees(from)}°` : `${degrees((from + ring.teeth) % ring.teeth)}–${degrees(to)}°`;
	const degrees = (tooth: number) => Math.round((360 * tooth) / ring.teeth);
	const says = $derived(
		places.length === 0
			? `Ring of ${ring.teeth} teeth, every one seen`
			: `Ring of ${ring.teeth} teeth; look at ${places.map(placeWords).join(', ')}`
	);
	const width = $derived(Math.max(2.5, Math.min(9, (2 * Math.PI * INNER) / ring.teeth - 3.5)));
</script>

<figure class="m-0">
	<svg viewBox="-30 10 460 380" width={size} height={size} class="max-w-full" role="img" aria-label={says}>
		<circle cx={CENTRE} cy={CENTRE} r={INNER - 8} class="fill-none stroke-rule" stroke-width="1.5" />
		<circle
			cx={CENTRE}
			cy={CENTRE}
			r={INNER + TALL}
			class="fill-none stroke-rule"
			stroke-width="1.5"
			stroke-dasharray="2 5"
		/>
		{#each teeth as { tooth, seen, bad, from, to } (tooth)}
			{#if seen >= 0.5}
				<line
					x1={from.x}
					y1={from.y}
					x2={to.x}
					y2={to.y}
					stroke-width={width}
					class={bad ? 'stroke-suspect-mark' : 'stroke-ink'}
				/>
			{/if}
		{/each}
		{#each places.slice(0, 6) as place (place.from)}
			{@const middle = (place.from + place.to) / 2}
			{@const at = point(middle, INNER + TALL + 36)}
			{@const mark = point(middle, INNER + TALL / 2)}
			{#if place.to > place.from}
				{@const [a, b] = [point(place.from - 0.4, INNER + 4), point(place.to + 0.4, INNER + 4)]}
				<path
					d="M{a.x} {a.y} A{INNER + 4} {INNER + 4} 0 {place.to - place.from > ring.teeth / 2
						? 1
						: 0} 1 {b.x} {b.y}"
					class="fill-none stroke-bad"
					stroke-width="5"
				/>
			{/if}
			<g transform="translate({mark.x} {mark.y}) rotate({(angleOf(middle) * 180) / Math.PI})">
				<path d="M-11 -10 H11 L4 0 L11 10 H-11 Z" class="fill-bad" />
			</g>
			<text
				x={at.x}
				y={at.y}
				text-anchor="middle"
				dominant-baseline="middle"
				class="num fill-ink"
				font-size="17"
				font-weight="700">{placeWords(place)}</text
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
	<figcaption class="max-w-sm text-sm text-ink-2">
		{#if places.length > 0}Counted the way the wheel turned, from the tooth that the capture saw first (top).
			Begin a capture with the wheel standing and a chalk mark at the sensor: then the top is your mark.{:else}Each
			line is a tooth, as long as its pulse is high.{/if}
	</figcaption>
</figure>
