import { LuDecomposition, Matrix } from 'ml-matrix';

/** A resistor between two named nodes. */
export interface Resistor {
	a: string;
	b: string;
	/** Above zero. */
	ohms: number;
}

/** Every node leaks this much, as damp plastic does: it also gives a node that hangs on nothing a voltage, 0. */
const LEAK_SIEMENS = 1e-11;

/** Nodes that hang together without passing through a fixed node, with their conductance matrix in factors. */
interface Island {
	nodes: string[];
	lu: LuDecomposition;
	/** Volts of each node with nothing injected. */
	rest: Float64Array;
}

/**
 * Direct-current nodal analysis: Kirchhoff's current law at each node, G·v = i, solved by LU factors.
 *
 * Nodes of known voltage cut the network into islands that are solved apart, so a vehicle with two hundred nodes costs
 * little more than its largest circuit. Everything is linear: a current drawn somewhere adds {@link transferOhms} times
 * itself to each node, so that sensors, meters and drivers are superposed without a new solution.
 */
export class NodalAnalysis {
	private readonly islandOf = new Map<string, { island: Island; at: number }>();
	private readonly columns = new Map<string, Float64Array>();

	/**
	 * @param resistors any number between the same nodes
	 * @param fixed volts of the nodes that are held by a source
	 * @throws RangeError for a resistance that is not above zero
	 */
	constructor(
		resistors: readonly Resistor[],
		private readonly fixed: ReadonlyMap<string, number>
	) {
		for (const [nodes, inside] of islandsOf(resistors, fixed)) this.solveIsland(nodes, inside);
	}

	private solveIsland(nodes: string[], resistors: Resistor[]): void {
		const at = new Map(nodes.map((node, i) => [node, i]));
		const conductance = Matrix.zeros(nodes.length, nodes.length);
		const injected = Matrix.zeros(nodes.length, 1);
		const add = (i: number, j: number, siemens: number) =>
			conductance.set(i, j, conductance.get(i, j) + siemens);
		nodes.forEach((_, i) => add(i, i, LEAK_SIEMENS));
		for (const { a, b, ohms } of resistors) {
			const siemens = 1 / ohms;
			for (const [here, there] of [
				[a, b],
				[b, a]
			] as const) {
				const i = at.get(here);
				if (i === undefined) continue;
				add(i, i, siemens);
				const j = at.get(there);
				if (j !== undefined) add(i, j, -siemens);
				else injected.set(i, 0, injected.get(i, 0) + siemens * (this.fixed.get(there) ?? 0));
			}
		}
		const lu = new LuDecomposition(conductance);
		const island = { nodes, lu, rest: Float64Array.from(lu.solve(injected).to1DArray()) };
		nodes.forEach((node, i) => this.islandOf.set(node, { island, at: i }));
	}

	has(node: string): boolean {
		return this.fixed.has(node) || this.islandOf.has(node);
	}

	/** Volts of a node with nothing injected; 0 for a node that hangs on nothing. */
	volts(node: string): number {
		const place = this.islandOf.get(node);
		return place ? (place.island.rest[place.at] ?? 0) : (this.fixed.get(node) ?? 0);
	}

	/**
	 * How many volts a node rises for each ampere pushed into another one: the transfer resistance, in ohms. A fixed node
	 * takes any current without moving, and nodes of different islands do not move each other.
	 */
	transferOhms(into: string, node: string): number {
		const [source, place] = [this.islandOf.get(into), this.islandOf.get(node)];
		if (!source || source.island !== place?.island) return 0;
		let column = this.columns.get(into);
		if (!column) {
			const unit = Matrix.zeros(source.island.nodes.length, 1);
			unit.set(source.at, 0, 1);
			column = Float64Array.from(source.island.lu.solve(unit).to1DArray());
			this.columns.set(into, column);
		}
		return column[place.at] ?? 0;
	}

	/** Volts that one ampere from `a` to `b` through an outside device adds between `plus` and `minus`, in ohms. */
	loopTransferOhms(a: string, b: string, plus: string, minus: string): number {
		const moved = (node: string) => this.transferOhms(b, node) - this.transferOhms(a, node);
		return moved(plus) - moved(minus);
	}

	/** Thévenin resistance seen between two nodes, in ohms: what an ideal ohmmeter reads of a network without sources. */
	resistanceOhms(a: string, b: string): number {
		return Math.max(0, -this.loopTransferOhms(a, b, a, b));
	}
}

/** Groups the free nodes that resistors connect, with the resistors that touch each group. */
function* islandsOf(
	resistors: readonly Resistor[],
	fixed: ReadonlyMap<string, number>
): Generator<[string[], Resistor[]]> {
	const touching = new Map<string, Resistor[]>();
	for (const resistor of resistors) {
		if (!(resistor.ohms > 0)) {
			throw new RangeError(`${resistor.a}–${resistor.b}: ${resistor.ohms} Ω is no resistance above zero`);
		}
		for (const node of [resistor.a, resistor.b]) {
			if (fixed.has(node)) continue;
			const list = touching.get(node);
			if (list) list.push(resistor);
			else touching.set(node, [resistor]);
		}
	}
	const seen = new Set<string>();
	for (const start of touching.keys()) {
		if (seen.has(start)) continue;
		const nodes: string[] = [];
		const inside = new Set<Resistor>();
		const open = [start];
		seen.add(start);
		for (let node = open.pop(); node !== undefined; node = open.pop()) {
			nodes.push(node);
			for (const resistor of touching.get(node) ?? []) {
				inside.add(resistor);
				for (const next of [resistor.a, resistor.b]) {
					if (seen.has(next) || fixed.has(next)) continue;
					seen.add(next);
					open.push(next);
				}
			}
		}
		yield [nodes, [...inside]];
	}
}
