import { instance, type Viz } from '@viz-js/viz';
import { z } from 'zod';
import type { LaidOut } from '../../../library/vehicle/drawings';

const Styled = { style: z.string().default('solid'), penwidth: z.coerce.number().default(1) };
/** What of the layout's own account of a graph is drawn. */
const Account = z.object({
	bb: z.string(),
	objects: z
		.array(
			z.object({
				pos: z.string(),
				/** Inches. */
				width: z.coerce.number(),
				height: z.coerce.number(),
				label: z.string(),
				shape: z.string(),
				...Styled
			})
		)
		.default([]),
	edges: z
		.array(z.object({ pos: z.string(), label: z.string().optional(), lp: z.string().optional(), ...Styled }))
		.default([])
});

const POINTS_PER_INCH = 72;
let layout: Promise<Viz> | null = null;

/** Lays a graph out. @param dot in the language of the graph layout */
export async function laidOut(dot: string): Promise<LaidOut> {
	const viz = await (layout ??= instance());
	const { bb, objects, edges } = Account.parse(viz.renderJSON(dot));
	const [, , width = 0, height = 0] = bb.split(',').map(Number);
	const point = (text: string): [x: number, y: number] => {
		const [x = 0, y = 0] = text.split(',').map(Number);
		return [round(x), round(height - y)];
	};
	const isDotted = (style: string) => style.includes('dotted');
	return {
		width: Math.ceil(width),
		height: Math.ceil(height),
		nodes: objects.map(({ pos, label, shape, style, penwidth, ...size }) => {
			const [x, y] = point(pos);
			return {
				x,
				y,
				width: round(size.width * POINTS_PER_INCH),
				height: round(size.height * POINTS_PER_INCH),
				lines: label.split(/\\n|\n/),
				boxed: shape === 'box',
				dotted: isDotted(style),
				weight: penwidth
			};
		}),
		edges: edges.map(({ pos, label, lp, style, penwidth }) => {
			// A start and then three points for each piece of a curve.
			const points = pos.split(' ').filter((one) => !/^[es],/.test(one));
			const [start = '0,0', ...rest] = points;
			const at = lp === undefined ? null : point(lp);
			return {
				path: `M${point(start).join(' ')}C${rest.map((one) => point(one).join(' ')).join(' ')}`,
				dotted: isDotted(style),
				weight: penwidth,
				label: at && label ? { text: label, x: at[0], y: at[1] } : null
			};
		})
	};
}

const round = (value: number) => Math.round(value * 10) / 10;
