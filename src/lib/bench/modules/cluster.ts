import type { ModuleType } from '../../../../library';
import type { World } from '../world';
import { LISTENS } from './listening';
import { BOOT_S, Module } from './module';
import { BENCH_LAMPS, type Lamp } from './monitor';

const SELF_CHECK_S = 3;
/** Lamps that light by themselves when the module behind them is not heard. */
const LIT_WITHOUT: [sender: 'brake' | 'restraint' | 'power-steering' | 'engine', lamps: Lamp[]][] = [
	['brake', ['brake', 'anti-lock', 'stability']],
	['restraint', ['restraint']],
	['power-steering', ['steering']],
	['engine', ['engine']]
];

/** Instrument cluster: shows the speed and lights the lamps, all of them for a moment at key-on. */
export class Cluster extends Module {
	override readonly role = 'cluster' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'IC-5.30');
		this.outputs.set('D1E1', 0);
	}

	/** Whether lamps are still in their key-on self-check. */
	get selfCheck(): boolean {
		return this.awakeS >= BOOT_S && this.awakeS < BOOT_S + SELF_CHECK_S;
	}

	/** Lamps that are lit, by its own self-check, by what others ask, and for want of hearing them. */
	lit(world: World): Set<Lamp> {
		if (this.selfCheck || this.outputs.get('D1E1') !== 0) return new Set(BENCH_LAMPS);
		const lit = new Set<Lamp>(this.lampsAsked);
		for (const sender of world.type.modules.map((module) => module.role)) {
			for (const lamp of world.messages.read('cluster', sender, world.timeS)?.lamps ?? []) lit.add(lamp);
		}
		for (const [sender, lamps] of LIT_WITHOUT) {
			if (LISTENS.cluster.includes(sender) && !world.messages.read('cluster', sender, world.timeS)) {
				for (const lamp of lamps) lit.add(lamp);
			}
		}
		return lit;
	}

	/** Speed on the dial; zero where it has none to show. */
	dialKmh(world: World): number {
		return world.messages.read('cluster', 'brake', world.timeS)?.said.vehicleKmh ?? 0;
	}

	protected override run(world: World): void {
		this.say(world, { odometerKm: world.motion.odometerM / 1000 }, !this.failing('060704'));
	}

	protected tell(): null {
		return null;
	}
}
