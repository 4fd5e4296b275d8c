import type { RingSeen } from '../../case/paper/beforeAfter';
import type { KeyTrace } from '../../case/paper/keyTraces';
import { upperFirst } from '../../case/words';
import type { Chunk } from '../../core/live/chunk';
import { decimate } from '../../core/live/decimate';
import { isNotAvailable, isWheel } from '../../core/live/recording';
import { drawRing, INNER_RADIUS, RING_SIZE, USUAL_LENGTH } from '../../core/scope/ringDrawing';
import { BAD, INK, QUIET, RULE, SUSPECT } from './inks';

/** Pictures on paper, as SVG without words: those stand beside it, where they can be searched. */

const at = (value: number): string => value.toFixed(1);

export function ringSvg({ ring, marked }: RingSeen): string {
	const { teeth, places, width } = drawRing(ring, marked);
	const lines = teeth
		.filter(({ there }) => there)
		.map(
			({ bad, from, to }) =>
				`<line x1="${at(from.x)}" y1="${at(from.y)}" x2="${at(to.x)}" y2="${at(to.y)}" stroke="${bad ? SUSPECT : INK}" stroke-width="${width.toFixed(1)}"/>`
		);
	const marks = places.map(
		({ arc, mark, turnDeg }) =>
			`${arc ? `<path d="${arc}" fill="none" stroke="${BAD}" stroke-width="5"/>` : ''}<path transform="translate(${at(mark.x)} ${at(mark.y)}) rotate(${at(turnDeg)})" d="M-11 -10 H11 L4 0 L11 10 H-11 Z" fill="${BAD}"/>`
	);
	const middle = RING_SIZE / 2;
	const circle = (radius: number) =>
		`<circle cx="${middle}" cy="${middle}" r="${radius}" fill="none" stroke="${RULE}" stroke-width="1.5"/>`;
	return `<svg viewBox="30 30 ${RING_SIZE - 60} ${RING_SIZE - 60}" xmlns="http://www.w3.org/2000/svg">${circle(INNER_RADIUS - 8)}${circle(INNER_RADIUS + USUAL_LENGTH)}${lines.join('')}${marks.join('')}</svg>`;
}

const WIDTH = 480;
const HEIGHT = 96;
/** More points than this no printer tells apart. */
const POINTS = 400;

export interface TraceDrawing {
	svg: string;
	/** "Rear left (thick) and the other wheels, 0 to 43 km/h, second 12.0 to 22.0." */
	words: string;
}

/** A stretch of wheel speeds over time; null where the samples do not have that wheel. */
export function traceDrawing(
	{ channel, fromS, toS }: KeyTrace,
	{ timeS, channels }: Chunk
): TraceDrawing | null {
	if (!channels.has(channel) || toS <= fromS) return null;
	const lines = [...channels]
		.filter(([name]) => isWheel(name))
		.map(([name, column]) => ({ name, ...decimate(timeS, column, fromS, toS, POINTS) }));
	const speeds = lines
		.flatMap(({ y }) => [...y])
		.filter((kmh) => Number.isFinite(kmh) && !isNotAvailable(kmh));
	const topKmh = Math.max(10, ...speeds);
	const path = ({ x, y }: { x: Float64Array; y: Float64Array }): string => {
		let pen = 'M';
		let d = '';
		for (const [i, t] of x.entries()) {
			const kmh = y[i] ?? NaN;
			// A word for "no speed" is a hole, not a height.
			if (Number.isNaN(kmh) || isNotAvailable(kmh)) {
				pen = 'M';
				continue;
			}
			const across = Math.min(WIDTH, Math.max(0, ((t - fromS) / (toS - fromS)) * WIDTH));
			d += `${pen}${at(across)} ${at(HEIGHT - 2 - (Math.max(0, kmh) / topKmh) * (HEIGHT - 6))}`;
			pen = 'L';
		}
		return d;
	};
	const drawn = (name: string, stroke: string, width: number) =>
		lines
			.filter((line) => (line.name === channel) === (name === channel))
			.map(path)
			.filter((d) => d !== '')
			.map((d) => `<path d="${d}" fill="none" stroke="${stroke}" stroke-width="${width}"/>`)
			.join('');
	return {
		svg: `<svg viewBox="0 0 ${WIDTH} ${HEIGHT}" xmlns="http://www.w3.org/2000/svg"><path d="M0 ${HEIGHT - 2}H${WIDTH}" stroke="${RULE}" stroke-width="1"/>${drawn('', QUIET, 0.8)}${drawn(channel, INK, 1.8)}</svg>`,
		words: `${upperFirst(channel.replaceAll('_', ' '))} (thick) and the other wheels, 0 to ${topKmh.toFixed(0)} km/h, second ${fromS.toFixed(1)} to ${toS.toFixed(1)}.`
	};
}
