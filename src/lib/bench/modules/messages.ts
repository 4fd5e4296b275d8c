import type { ModuleRole } from '../../../../library';
import type { Lamp } from './monitor';

/** What each sender says in its cyclic message, in the unit its names carry. Absent values are "not available". */
export interface Said {
	brake: { vehicleKmh: number; brakeBar: number; pedal: boolean };
	'trailer-brake': { vehicleKmh: number };
	'steering-angle': { angleDeg: number };
	yaw: { yawDegps: number; lateralG: number };
	engine: { running: boolean; rpm: number };
	'power-steering': { torqueNm: number };
	'park-brake': { applied: boolean };
	cluster: { odometerKm: number };
	restraint: { armed: boolean };
	gateway: { keyCycles: number };
}

export interface Message<K extends ModuleRole = ModuleRole> {
	said: Said[K];
	/** False while the sender does not trust it itself. */
	valid: boolean;
	lamps: readonly Lamp[];
	/** Alive counter, 0–15. */
	counter: number;
	/** When the counter last moved. */
	movedAtS: number;
}

/** A cyclic message is given up after this long without it. */
export const MESSAGE_TIMEOUT_S = 0.5;
const COUNTER_VALUES = 16;
const NEVER = -Infinity;

/** All cyclic messages of the vehicle: who said what last, and who heard it when. */
export class Messages {
	private readonly latest = new Map<ModuleRole, Message>();
	private readonly heardAtS: Float64Array;
	private readonly index: Map<ModuleRole, number>;
	/** Senders whose alive counter stands still. */
	readonly frozen = new Set<ModuleRole>();
	/** Frames that somebody had to throw away. */
	errors = 0;

	constructor(private readonly roles: readonly ModuleRole[]) {
		this.index = new Map(roles.map((role, i) => [role, i]));
		this.heardAtS = new Float64Array(roles.length ** 2).fill(NEVER);
	}

	/**
	 * @param hears `hears[receiver][sender]`
	 * @param lost whether this frame is destroyed on the way
	 */
	send<K extends ModuleRole>(
		sender: K,
		said: Said[K],
		valid: boolean,
		lamps: readonly Lamp[],
		timeS: number,
		hears: readonly (readonly boolean[])[],
		lost: boolean
	): void {
		if (lost) {
			this.errors += 1;
			return;
		}
		const at = this.index.get(sender) ?? 0;
		const before = this.latest.get(sender);
		if (before) {
			before.said = said;
			before.valid = valid;
			before.lamps = lamps;
			if (!this.frozen.has(sender)) {
				before.counter = (before.counter + 1) % COUNTER_VALUES;
				before.movedAtS = timeS;
			}
		} else this.latest.set(sender, { said, valid, lamps, counter: 0, movedAtS: timeS });
		const n = this.roles.length;
		for (let receiver = 0; receiver < n; receiver++) {
			if (hears[receiver]?.[at]) this.heardAtS[receiver * n + at] = timeS;
		}
	}

	/** The sender's last message, where this receiver heard it and it is not too old. */
	read<K extends ModuleRole>(receiver: ModuleRole, sender: K, timeS: number): Message<K> | null {
		if (this.silentS(receiver, sender, timeS) > MESSAGE_TIMEOUT_S) return null;
		return (this.latest.get(sender) as Message<K> | undefined) ?? null;
	}

	/** Seconds since this receiver heard the sender. */
	silentS(receiver: ModuleRole, sender: ModuleRole, timeS: number): number {
		const [to, from] = [this.index.get(receiver), this.index.get(sender)];
		if (to === undefined || from === undefined) return Infinity;
		return timeS - (this.heardAtS[to * this.roles.length + from] ?? NEVER);
	}

	/** The key goes off: whoever sleeps is forgotten. */
	forget(): void {
		this.latest.clear();
		this.heardAtS.fill(NEVER);
	}
}
