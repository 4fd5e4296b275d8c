<script lang="ts">
	import { onMount } from 'svelte';
	import { drawTrace, layoutOf, LEFT_PX, type TraceView } from './traceDrawing';

	/**
	 * An oscilloscope's picture: wheel or pinch to come closer, drag to move along, rulers by their grips. On a canvas, because
	 * it is drawn anew at every step of a drag.
	 */
	let {
		view,
		label,
		height = 380,
		onspan,
		onrulers
	}: {
		view: TraceView;
		label: string;
		height?: number;
		onspan: (fromS: number, toS: number) => void;
		onrulers: (rulers: NonNullable<TraceView['rulers']>) => void;
	} = $props();
	let canvas: HTMLCanvasElement;
	let size = $state(0);
	const GRAB_PX = 22;
	type Held = { what: 'span'; x: number; from: number; to: number } | { what: 't' | 'v'; which: 0 | 1 };
	let held: Held | null = null;
	/** The other finger of a pinch. */
	const fingers: Record<number, number> = {};

	onMount(() => {
		const watch = new ResizeObserver(() => (size = canvas.clientWidth));
		watch.observe(canvas);
		const theme = new MutationObserver(() => drawTrace(canvas, view));
		theme.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
		return () => {
			watch.disconnect();
			theme.disconnect();
		};
	});
	$effect(() => {
		// A new width is a new picture.
		void size;
		drawTrace(canvas, view);
	});

	const layout = () => layoutOf(view, canvas.clientWidth, canvas.clientHeight);
	const zoomAt = (timeS: number, factor: number) => {
		const { fromS, toS } = view;
		onspan(timeS - (timeS - fromS) * factor, timeS + (toS - timeS) * factor);
	};
	function grabbed(x: number, y: number): Held | null {
		const { rulers } = view;
		if (!rulers) return null;
		const at = layout();
		const lane = at.lane(rulers.lane);
		for (const which of [0, 1] as const) {
			if (Math.abs(at.x(rulers.t[which]) - x) < GRAB_PX && y > canvas.clientHeight - 70)
				return { what: 't', which };
			if (Math.abs(lane.y(rulers.v[which]) - y) < GRAB_PX && x > canvas.clientWidth - 44)
				return { what: 'v', which };
		}
		return null;
	}
	function down(event: PointerEvent) {
		canvas.setPointerCapture(event.pointerId);
		fingers[event.pointerId] = event.offsetX;
		held = grabbed(event.offsetX, event.offsetY) ?? {
			what: 'span',
			x: event.offsetX,
			from: view.fromS,
			to: view.toS
		};
	}
	function move(event: PointerEvent) {
		if (!held) return;
		const others = Object.entries(fingers).filter(([id]) => Number(id) !== event.pointerId);
		const other = others[0]?.[1];
		const before = fingers[event.pointerId] ?? event.offsetX;
		fingers[event.pointerId] = event.offsetX;
		if (other !== undefined) {
			const [was, is] = [Math.abs(before - other), Math.abs(event.offsetX - other)];
			if (was > 8 && is > 8) zoomAt(layout().time((event.offsetX + other) / 2), was / is);
			return;
		}
		const at = layout();
		if (held.what === 'span') {
			const by = ((event.offsetX - held.x) / (canvas.clientWidth - LEFT_PX)) * (held.to - held.from);
			onspan(held.from - by, held.to - by);
		} else if (view.rulers) {
			const rulers = { ...view.rulers, t: [...view.rulers.t], v: [...view.rulers.v] } as NonNullable<
				TraceView['rulers']
			>;
			if (held.what === 't') rulers.t[held.which] = at.time(event.offsetX);
			else rulers.v[held.which] = at.lane(rulers.lane).volts(event.offsetY);
			onrulers(rulers);
		}
	}
	function up(event: PointerEvent) {
		delete fingers[event.pointerId];
		held = null;
	}
	function wheel(event: WheelEvent) {
		event.preventDefault();
		zoomAt(layout().time(event.offsetX), event.deltaY > 0 ? 1.25 : 0.8);
	}
</script>

<div role="img" aria-label={label}>
	<canvas
		bind:this={canvas}
		class="block w-full touch-none"
		style:height="{height}px"
		aria-hidden="true"
		onpointerdown={down}
		onpointermove={move}
		onpointerup={up}
		onpointercancel={up}
		onwheel={wheel}
	></canvas>
</div>
