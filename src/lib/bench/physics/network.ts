import type { ModuleRole, VehicleType } from '../../../../library';
import { NodalAnalysis, type Resistor } from '../../core/electrical/nodalAnalysis';
import { deviceInternals, innerVolts, moduleInternals, railNode, type Rails } from './internals';
import { NO_SCATTER, type Scatter } from './scatter';
import { BATTERY, BODY, KEY_FEED, OPEN_OHMS, pinFor, wiringOf, type Wiring } from './wiring';

/** What decides the electrical state besides faults and hands. */
export interface Supply {
	batteryVolts: number;
	keyOn: boolean;
	pedalPressed: boolean;
	/** Of each wheel's passive sensor. */
	coilOhms: readonly number[];
	/** A module whose electronics are dead draws nothing and drives nothing. */
	dead: ReadonlySet<ModuleRole>;
}

/** Below this a module resets and stays off. */
export const RESET_BELOW_V = 6.5;
/** With the pump's relay open, only the line that watches its feed draws there. */
const PUMP_WATCH_OHMS = 10_000;
/** A fuse blows when it carries this many times its rating. */
const BLOWS_AT = 2;
/** Solutions kept of a type: an intermittent fault goes back and forth between a few states. */
const KEPT_SOLUTIONS = 100;

/** A solution follows from its key alone, so vehicles of one type share them, where nothing of theirs differs. */
const SOLUTIONS = new WeakMap<VehicleType, Map<string, Solution>>();

/** The electrical state of the whole vehicle at one moment: any node can be asked. */
export interface Solution {
	power: NodalAnalysis;
	signals: NodalAnalysis;
	rails: ReadonlyMap<ModuleRole, Rails>;
	/** For whoever derives more from a solution: kept and dropped with it. */
	derived: Map<string, unknown>;
}

/** Volts of any node of a solution, nothing injected. */
export const nodeVolts = ({ signals, power }: Solution, node: string): number =>
	signals.has(node) ? signals.volts(node) : power.volts(node);

/**
 * The wiring with everything that is wrong with it now, solved in two stages: supply and ground of the modules first, then
 * signals and buses with the modules' rails as sources. Solved only when something changed, and remembered.
 */
export class VehicleNetwork {
	readonly wiring: Wiring;
	private readonly internals: Resistor[];
	private readonly ohms = new Map<string, number>();
	private readonly extras = new Map<string, Resistor>();
	/** What hands hold to the wiring: faults that come and go do not take it off. */
	private clip: Resistor | null = null;
	private readonly unplugged = new Set<string>();
	private readonly blown = new Set<string>();
	private readonly solutions: Map<string, Solution>;
	private current: Solution | null = null;
	private currentKey = '';

	constructor(
		private readonly type: VehicleType,
		scatter: Scatter = NO_SCATTER
	) {
		this.wiring = wiringOf(type, scatter);
		this.internals = type.modules.flatMap((module) => moduleInternals(type, module, scatter));
		const isUsual = scatter === NO_SCATTER;
		this.solutions = (isUsual ? SOLUTIONS.get(type) : undefined) ?? new Map();
		if (isUsual) SOLUTIONS.set(type, this.solutions);
	}

	/** Gives an element another resistance; null gives it its own back. Unknown names are refused. */
	setOhms(element: string, ohms: number | null): void {
		if (!this.wiring.elements.has(element)) throw new RangeError(`the wiring has no ${element}`);
		if (ohms === null) this.ohms.delete(element);
		else this.ohms.set(element, ohms);
		this.current = null;
	}

	/** Adds a resistor that does not belong there, such as a chafe or a jumper; null takes it away. */
	setExtra(name: string, resistor: Resistor | null): void {
		if (resistor) this.extras.set(name, resistor);
		else this.extras.delete(name);
		this.current = null;
	}

	/** Holds a resistor to two nodes by hand; null takes it off. */
	setClip(resistor: Resistor | null): void {
		this.clip = resistor;
		this.current = null;
	}

	clearFaults(): void {
		this.ohms.clear();
		this.extras.clear();
		this.current = null;
	}

	/** Opens or closes a plug (`X20`) or the plug on a device (`brake`, `rear-left`). False where there is none. */
	setPlugged(thing: string, plugged: boolean): boolean {
		if (![...this.wiring.elements.keys()].some((id) => id.startsWith(`${thing}.`) && !id.includes('@')))
			return false;
		if (plugged) this.unplugged.delete(thing);
		else this.unplugged.add(thing);
		this.current = null;
		return true;
	}

	get open(): ReadonlySet<string> {
		return this.unplugged;
	}

	get blownFuses(): ReadonlySet<string> {
		return this.blown;
	}

	/** Takes a fuse out for good (blown) or puts a new one in. */
	setFuse(name: string, whole: boolean): void {
		if (whole) this.blown.delete(name);
		else this.blown.add(name);
		this.current = null;
	}

	/** Something the supply depends on has changed. */
	touch(): void {
		this.current = null;
	}

	solve(supply: Supply): Solution {
		if (this.current) return this.current;
		for (let i = 0; i < this.type.harness.fuses.length + 1; i++) {
			this.currentKey = this.keyOf(supply);
			const known = this.solutions.get(this.currentKey);
			const solution = known ?? this.solveNow(supply);
			if (!known) this.remember(solution);
			if (!this.blowFuses(solution)) {
				this.current = solution;
				return solution;
			}
		}
		throw new Error('more fuses blew than there are');
	}

	private remember(solution: Solution): void {
		const oldest = this.solutions.keys().next().value;
		if (this.solutions.size >= KEPT_SOLUTIONS && oldest !== undefined) this.solutions.delete(oldest);
		this.solutions.set(this.currentKey, solution);
	}

	private keyOf({ batteryVolts, keyOn, pedalPressed, coilOhms, dead }: Supply): string {
		return JSON.stringify([
			batteryVolts.toFixed(2),
			keyOn,
			pedalPressed,
			coilOhms.map(Math.round),
			[...dead],
			[...this.ohms],
			[...this.extras],
			this.clip,
			[...this.unplugged],
			[...this.blown]
		]);
	}

	private elementOhms(id: string, own: number): number {
		if (this.blown.has(id)) return OPEN_OHMS;
		const dot = id.indexOf('.');
		if (dot > 0 && this.unplugged.has(id.slice(0, dot)) && !id.includes('@')) return OPEN_OHMS;
		return this.ohms.get(id) ?? own;
	}

	/** Ohms of an element as it is now. */
	ohmsOf(id: string): number {
		return this.elementOhms(id, this.wiring.elements.get(id)?.ohms ?? OPEN_OHMS);
	}

	private solveNow(supply: Supply): Solution {
		const powerResistors: Resistor[] = [];
		const signalResistors: Resistor[] = [];
		const powerNodes = new Set([BATTERY, BODY, KEY_FEED]);
		for (const [id, { a, b, ohms: own }] of this.wiring.elements) {
			const isSwitch = id === 'key-switch';
			const ohms = isSwitch && !supply.keyOn ? OPEN_OHMS : this.elementOhms(id, own);
			if (this.wiring.power.has(id)) {
				powerResistors.push({ a, b, ohms });
				powerNodes.add(a).add(b);
			} else signalResistors.push({ a, b, ohms });
		}
		for (const extra of this.clip ? [...this.extras.values(), this.clip] : this.extras.values()) {
			const both = powerNodes.has(extra.a) && powerNodes.has(extra.b);
			(both ? powerResistors : signalResistors).push(extra);
		}
		const { power, rails } = this.solvePower(supply, powerResistors);
		const fixed = new Map<string, number>();
		for (const node of powerNodes) fixed.set(node, power.volts(node));
		for (const [role, rail] of rails) {
			for (const [name, volts] of Object.entries(innerVolts(rail))) {
				fixed.set(railNode(role, name as 'supply'), volts);
			}
		}
		const devices = deviceInternals(this.type, (i) => supply.coilOhms[i] ?? 1000, supply.pedalPressed);
		const signals = new NodalAnalysis([...signalResistors, ...this.internals, ...devices], fixed);
		return { power, signals, rails, derived: new Map() };
	}

	/** Modules draw while they work; one that resets for want of voltage stops drawing, and stays off. */
	private solvePower(
		{ batteryVolts, dead }: Supply,
		resistors: Resistor[]
	): { power: NodalAnalysis; rails: Map<ModuleRole, Rails> } {
		const fixed = new Map([
			[BODY, 0],
			[BATTERY, batteryVolts]
		]);
		const off = new Set<ModuleRole>(dead);
		for (;;) {
			const loads = this.type.modules.flatMap((module) => {
				const [a, b] = [pinFor(module, 'supply'), pinFor(module, 'ground')];
				const draws = a && b ? [{ a, b, ohms: off.has(module.role) ? 1e6 : 12.5 / module.drawsA }] : [];
				const [c, d] = [pinFor(module, 'pump-supply'), pinFor(module, 'pump-ground')];
				return c && d ? [...draws, { a: c, b: d, ohms: PUMP_WATCH_OHMS }] : draws;
			});
			const power = new NodalAnalysis([...resistors, ...loads], fixed);
			const rails = new Map<ModuleRole, Rails>();
			const before = off.size;
			for (const module of this.type.modules) {
				const supply = power.volts(pinFor(module, 'supply') ?? '');
				const ground = power.volts(pinFor(module, 'ground') ?? '');
				if (supply - ground < RESET_BELOW_V) off.add(module.role);
				rails.set(module.role, { supply, ground, works: !off.has(module.role) });
			}
			if (off.size === before) return { power, rails };
		}
	}

	private blowFuses(solution: Solution): boolean {
		let any = false;
		for (const { name, amps } of this.type.harness.fuses) {
			if (this.blown.has(name)) continue;
			const element = this.wiring.elements.get(name);
			if (!element) continue;
			const drop = solution.power.volts(element.a) - solution.power.volts(element.b);
			if (Math.abs(drop) / this.elementOhms(name, element.ohms) > amps * BLOWS_AT) {
				this.blown.add(name);
				any = true;
			}
		}
		return any;
	}
}
