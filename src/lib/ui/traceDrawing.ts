/** Drawing of an oscilloscope's picture on a canvas: lanes one below the other, rulers across them. */

export interface TraceLane {
	name: string;
	lowV: number;
	highV: number;
	/** Main trace first; a reference laid over it is drawn thinner, below. */
	traces: { timeS: ArrayLike<number>; volts: ArrayLike<number>; tone: 'ink' | 'good' | 'suspect' }[];
	/** Moments at which something was found. */
	eventsS: readonly number[];
}

export interface TraceView {
	fromS: number;
	toS: number;
	lanes: TraceLane[];
	/** Two times, and two voltages in one lane. */
	rulers: { t: [number, number]; v: [number, number]; lane: number } | null;
}

export const LEFT_PX = 62;
const BOTTOM_PX = 26;
/** Above each lane, for its name. */
const GAP_PX = 26;
const GRIP_PX = 22;
const TOKENS = {
	ink: '--color-base-content',
	second: '--color-secondary',
	rule: '--color-base-300',
	good: '--color-success',
	suspect: '--color-info',
	ground: '--color-base-100'
} as const;

export interface TraceLayout {
	x: (timeS: number) => number;
	time: (x: number) => number;
	lane: (index: number) => {
		top: number;
		height: number;
		y: (volts: number) => number;
		volts: (y: number) => number;
	};
}

/** Where times and volts lie in a picture of a size. */
export function layoutOf({ fromS, toS, lanes }: TraceView, width: number, height: number): TraceLayout {
	const across = width - LEFT_PX;
	const each = (height - BOTTOM_PX) / Math.max(1, lanes.length);
	return {
		x: (timeS) => LEFT_PX + ((timeS - fromS) / (toS - fromS)) * across,
		time: (x) => fromS + ((x - LEFT_PX) / across) * (toS - fromS),
		lane: (index) => {
			const one = lanes[index];
			const [low, high] = [one?.lowV ?? 0, one?.highV ?? 1];
			const top = index * each + GAP_PX - 4;
			const inner = each - GAP_PX;
			return {
				top,
				height: inner,
				y: (volts) => top + inner * (1 - (volts - low) / (high - low)),
				volts: (y) => low + (1 - (y - top) / inner) * (high - low)
			};
		}
	};
}

/** Steps of 1, 2 or 5 that divide a span into a few. */
function roundStep(span: number, most: number): number {
	const rough = span / most;
	const power = 10 ** Math.floor(Math.log10(rough));
	return ([1, 2, 5, 10].find((factor) => factor * power >= rough) ?? 10) * power;
}

const secondsWords = (timeS: number, step: number) =>
	step < 0.001
		? `${(timeS * 1000).toFixed(step < 0.0001 ? 2 : 1)} ms`
		: step < 1
			? `${timeS.toFixed(step < 0.01 ? 3 : 2)} s`
			: `${timeS.toFixed(0)} s`;

export function drawTrace(canvas: HTMLCanvasElement, view: TraceView): void {
	const context = canvas.getContext('2d');
	if (!context) return;
	const ratio = window.devicePixelRatio || 1;
	const { clientWidth: width, clientHeight: height } = canvas;
	if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
		canvas.width = Math.round(width * ratio);
		canvas.height = Math.round(height * ratio);
	}
	const style = getComputedStyle(canvas);
	const colour = (token: keyof typeof TOKENS) => style.getPropertyValue(TOKENS[token]).trim();
	context.setTransform(ratio, 0, 0, ratio, 0, 0);
	context.clearRect(0, 0, width, height);
	context.font = `14.5px ${style.fontFamily}`;
	const layout = layoutOf(view, width, height);
	drawTimes(context, view, layout, width, height, colour);
	for (const [i, lane] of view.lanes.entries()) {
		const place = layout.lane(i);
		context.fillStyle = colour('second');
		context.textAlign = 'right';
		context.textBaseline = 'middle';
		const step = roundStep(lane.highV - lane.lowV, 4);
		for (let v = Math.ceil(lane.lowV / step) * step; v <= lane.highV; v += step)
			context.fillText(`${Number(v.toFixed(3))} V`, LEFT_PX - 8, place.y(v));
		context.save();
		context.beginPath();
		context.rect(LEFT_PX, place.top - 18, width - LEFT_PX, place.height + 22);
		context.clip();
		for (const trace of [...lane.traces].reverse()) {
			context.strokeStyle = colour(trace.tone);
			context.lineWidth = trace.tone === 'good' ? 1.5 : 2;
			context.lineJoin = 'round';
			context.beginPath();
			for (let k = 0; k < trace.timeS.length; k++) {
				const [x, y] = [layout.x(trace.timeS[k] ?? 0), place.y(trace.volts[k] ?? 0)];
				if (k === 0) context.moveTo(x, y);
				else context.lineTo(x, y);
			}
			context.stroke();
		}
		drawEvents(context, lane, layout, place, colour);
		context.restore();
		context.fillStyle = colour('ink');
		context.textAlign = 'left';
		context.textBaseline = 'top';
		context.font = `600 14.5px ${style.fontFamily}`;
		const words = context.measureText(lane.name).width;
		context.fillStyle = colour('ground');
		context.fillRect(LEFT_PX + 4, place.top - 22, words + 8, 18);
		context.fillStyle = colour('ink');
		context.fillText(lane.name, LEFT_PX + 8, place.top - 20);
		context.font = `14.5px ${style.fontFamily}`;
	}
	if (view.rulers) drawRulers(context, view, layout, width, height, colour);
}

type Colour = (token: keyof typeof TOKENS) => string;

function drawTimes(
	context: CanvasRenderingContext2D,
	{ fromS, toS }: TraceView,
	layout: TraceLayout,
	width: number,
	height: number,
	colour: Colour
): void {
	const step = roundStep(toS - fromS, Math.max(2, (width - LEFT_PX) / 110));
	context.strokeStyle = colour('rule');
	context.lineWidth = 1;
	context.beginPath();
	context.moveTo(LEFT_PX, height - BOTTOM_PX);
	context.lineTo(width, height - BOTTOM_PX);
	context.stroke();
	context.fillStyle = colour('second');
	context.textAlign = 'center';
	context.textBaseline = 'top';
	for (let t = Math.ceil(fromS / step) * step; t < toS; t += step) {
		const x = layout.x(t);
		if (x > LEFT_PX + 20 && x < width - 24)
			context.fillText(secondsWords(t, step), x, height - BOTTOM_PX + 6);
	}
}

/** A half disc above the trace where something was found. */
function drawEvents(
	context: CanvasRenderingContext2D,
	lane: TraceLane,
	layout: TraceLayout,
	place: { top: number; height: number },
	colour: Colour
): void {
	context.fillStyle = colour('suspect');
	context.strokeStyle = colour('suspect');
	context.lineWidth = 1.5;
	for (const timeS of lane.eventsS) {
		const x = layout.x(timeS);
		context.beginPath();
		context.arc(x, place.top - 10, 6, 0, 2 * Math.PI);
		context.stroke();
		context.beginPath();
		context.arc(x, place.top - 10, 6, -Math.PI / 2, Math.PI / 2);
		context.fill();
	}
}

function drawRulers(
	context: CanvasRenderingContext2D,
	view: TraceView,
	layout: TraceLayout,
	width: number,
	height: number,
	colour: Colour
): void {
	const { rulers } = view;
	if (!rulers) return;
	context.strokeStyle = colour('ink');
	context.fillStyle = colour('ink');
	context.lineWidth = 1.5;
	context.setLineDash([2, 4]);
	for (const t of rulers.t) {
		const x = layout.x(t);
		context.beginPath();
		context.moveTo(x, 0);
		context.lineTo(x, height - BOTTOM_PX);
		context.stroke();
	}
	const place = layout.lane(rulers.lane);
	for (const v of rulers.v) {
		const y = place.y(v);
		context.beginPath();
		context.moveTo(LEFT_PX, y);
		context.lineTo(width, y);
		context.stroke();
	}
	context.setLineDash([]);
	// Grips as wide as a finger's tip.
	for (const t of rulers.t) grip(context, layout.x(t), height - BOTTOM_PX - GRIP_PX / 2);
	for (const v of rulers.v) grip(context, width - GRIP_PX / 2, place.y(v));
}

function grip(context: CanvasRenderingContext2D, x: number, y: number): void {
	context.beginPath();
	context.arc(x, y, GRIP_PX / 2 - 2, 0, 2 * Math.PI);
	context.fill();
}
