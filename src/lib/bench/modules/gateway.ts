import type { ModuleType } from '../../../../library';
import type { World } from '../world';
import { rawValue } from './identity';
import { Module } from './module';

/** Gateway: the door to the network. Its own power stays on, and it counts the key cycles and broken frames. */
export class Gateway extends Module {
	override readonly role = 'gateway' as const;

	constructor(type: ModuleType) {
		super(type, 0.1, 'GW-3.02');
	}

	protected override run(world: World): void {
		this.say(world, { keyCycles: world.keyCycles });
	}

	protected tell(id: string, world: World): string | null {
		if (id === 'D0A0') return rawValue(id, world.keyCycles);
		return id === 'D140' ? rawValue(id, Math.min(0xffff, world.messages.errors)) : null;
	}
}
