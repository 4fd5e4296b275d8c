import { instance } from '@viz-js/viz';
import { readImports } from './imports';

/** Rooms that are drawn, from the page down; the first that a file lies in is its own. */
const ROOMS: [folder: string, name: string][] = [
	['src/routes/', 'pages and routes'],
	['src/lib/ui/', 'components'],
	['src/workers/', 'web workers'],
	['src/lib/away/', 'without a server'],
	['src/lib/server/', 'server'],
	['src/lib/care/', 'care of the database'],
	['src/lib/objects/', 'stores elsewhere'],
	['src/lib/link/', 'link to vehicles'],
	['src/lib/case/listen/', 'listen'],
	['src/lib/case/codes/', 'codes'],
	['src/lib/case/watch/', 'watch'],
	['src/lib/case/measure/', 'measure'],
	['src/lib/case/reason/', 'reason'],
	['src/lib/case/mend/', 'mend'],
	['src/lib/case/proof/', 'proof'],
	['src/lib/case/progress/', 'progress'],
	['src/lib/case/paper/', 'paper'],
	['src/lib/case/thread/', 'thread'],
	['src/lib/case/entries/', 'entries'],
	['src/lib/bench/', 'bench vehicle'],
	['cli/', 'command line'],
	['demo/', 'demo shop'],
	['library/', 'library'],
	['src/lib/core/', 'core']
];
const CASE = new Set(ROOMS.filter(([folder]) => folder.startsWith('src/lib/case/')).map(([, name]) => name));
/** Everybody may use these; their arrows would hide all others. */
const EVERYBODYS = new Set(['core', 'library']);
/** Fewer imports than this between two rooms are a detail. */
const FEWEST = 2;
const INK = '#17332f';
const PAPER = '#f6f1e6';
const RULE = '#55635c';

const roomOf = (file: string): string | undefined => ROOMS.find(([folder]) => file.startsWith(folder))?.[1];
const isOurs = (file: string): boolean => !/\.(test|fixture|spec)\.ts$/.test(file);

/** How many files of one room import from another, by both. */
function arrows(): Map<string, Map<string, number>> {
	const all = new Map<string, Map<string, number>>();
	for (const [file, used] of readImports()) {
		const from = roomOf(file);
		if (!from || !isOurs(file)) continue;
		const to = all.get(from) ?? new Map<string, number>();
		all.set(from, to);
		for (const room of new Set(used.filter(isOurs).map(roomOf)))
			if (room && room !== from) to.set(room, (to.get(room) ?? 0) + 1);
	}
	return all;
}

/** The rooms and who uses whom, as SVG: an arrow's weight is how many files import that way. */
export async function drawingOf(): Promise<string> {
	const files = [...readImports().keys()].filter(isOurs);
	const label = (name: string) => `${name}\\n${files.filter((file) => roomOf(file) === name).length} files`;
	const node = (name: string) => `"${name}" [label="${label(name)}"]`;
	const width = (count: number) => `penwidth=${(0.5 + Math.log2(count) / 2).toFixed(2)}`;
	// From outside, the rooms of `case/` are one: which of them somebody uses is a detail.
	const edges = [...arrows()].flatMap(([from, to]) => {
		const outside = !CASE.has(from);
		const intoCase = outside ? [...to].reduce((sum, [room, n]) => sum + (CASE.has(room) ? n : 0), 0) : 0;
		return [
			...[...to]
				.filter(([room, count]) => count >= FEWEST && !EVERYBODYS.has(room) && !(outside && CASE.has(room)))
				.map(([room, count]) => `"${from}" -> "${room}" [${width(count)}]`),
			...(intoCase >= FEWEST ? [`"${from}" -> "paper" [lhead=cluster_case, ${width(intoCase)}]`] : [])
		];
	});
	const names = ROOMS.map(([, name]) => name);
	const dot = `digraph {
		rankdir=TB; compound=true; nodesep=0.3; ranksep=0.5; bgcolor="${PAPER}";
		node [shape=box, color="${INK}", fontcolor="${INK}", fontname="Atkinson Hyperlegible Next, sans-serif", fontsize=13, penwidth=1.2, margin="0.22,0.1"];
		edge [color="${RULE}", arrowsize=0.6];
		${names
			.filter((name) => !CASE.has(name) && !EVERYBODYS.has(name))
			.map(node)
			.join(';\n')};
		subgraph cluster_case {
			label="case: what a thread says"; margin=18; fontcolor="${INK}"; fontname="Atkinson Hyperlegible Next, sans-serif"; fontsize=13; color="${INK}"; penwidth=0.8;
			${names
				.filter((name) => CASE.has(name))
				.map(node)
				.join(';\n')}
		}
		subgraph cluster_base {
			label="everybody may use"; margin=14; fontcolor="${INK}"; fontname="Atkinson Hyperlegible Next, sans-serif"; fontsize=13; color="${INK}"; penwidth=0.8;
			${[...EVERYBODYS].map(node).join(';\n')}
		}
		${edges.join(';\n')};
		"entries" -> "library" [style=invis]; "entries" -> "core" [style=invis]; "bench vehicle" -> "core" [style=invis];
	}`;
	const viz = await instance();
	return viz.renderString(dot, { format: 'svg' });
}
