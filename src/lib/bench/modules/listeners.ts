import { commonValue, rawValue } from './identity';
import { BOOT_S, Module, type Watch, type World } from './module';
import type { Sample } from './monitor';

/** A cyclic message is given up after this long without it. */
const MESSAGE_TIMEOUT_S = 0.5;

/** Brake control says its own data are not to be trusted: U0415-81 in whoever needs them. */
const invalidBrakeData: Watch = {
	rule: { dtc: 'C41581', failS: 1, passS: 2, lamps: [] },
	sample: ({ brakeMessage, timeS }): Sample => {
		if (!brakeMessage || timeS - brakeMessage.sentAtS > MESSAGE_TIMEOUT_S) return 'none';
		return brakeMessage.valid ? 'pass' : 'fail';
	}
};

/** Brake control is not heard at all: U0121-87. */
const brakeMissing: Watch = {
	rule: { dtc: 'C12187', failS: 1, passS: 1, lamps: ['anti-lock', 'stability'] },
	sample: ({ brakeMessage, timeS, keyOn }): Sample => {
		// With the key off brake control sleeps: its silence says nothing.
		if (!keyOn) return 'none';
		return brakeMessage && timeS - brakeMessage.sentAtS <= MESSAGE_TIMEOUT_S ? 'pass' : 'fail';
	}
};

/** Steering angle module: tells the wheel's angle and needs the vehicle speed to check itself. */
export class SteeringAngle extends Module {
	constructor(address: number) {
		super(address);
		this.watch(invalidBrakeData, brakeMissing);
	}

	identify(id: string, world: World): string | null {
		if (id === 'D110') return rawValue(id, world.steeringDeg);
		return commonValue(id, world, 'SA-1.07');
	}
}

const SELF_CHECK_S = 3;

/** Instrument cluster: shows the speed and lights the lamps, all of them for a moment at key-on. */
export class Cluster extends Module {
	constructor(address: number) {
		super(address);
		this.watch(invalidBrakeData, brakeMissing);
	}

	identify(id: string, world: World): string | null {
		return commonValue(id, world, 'IC-5.30');
	}

	/** Whether lamps are still in their key-on self-check. */
	get selfCheck(): boolean {
		return this.awakeS >= BOOT_S && this.awakeS < BOOT_S + SELF_CHECK_S;
	}
}

/** Gateway: the door to the network. Its own power stays on, and it counts the key cycles. */
export class Gateway extends Module {
	constructor(address: number) {
		super(address);
		this.watch(brakeMissing);
	}

	identify(id: string, world: World): string | null {
		if (id === 'D0A0') return rawValue(id, world.keyCycles);
		return commonValue(id, world, 'GW-3.02');
	}
}
