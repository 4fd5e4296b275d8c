import { wheelWords } from './words';
import { isNotAvailable } from './recording';

/** Each wheel turned in its turn while one person watches nothing but the wheel. */

export type RoundMode = 'hand' | 'gear';
export type CornerResult = 'answers' | 'dead' | 'erratic' | 'weaker' | 'turns-mate' | 'not-trusted';

export interface RoundWheel {
	channel: string;
	driven: boolean;
	/** Channel of the wheel on the other side of the axle. */
	mate: string | null;
}

export interface Corner {
	channel: string;
	result: CornerResult | null;
	topKmh: number;
	/** Lowest speed that it read while running up or down; NaN before. */
	lowestKmh: number;
	text: string;
}

export interface RoundState {
	corners: Corner[];
	/** The wheel that is turning now. */
	turning: string | null;
	/** The wheel to turn next; null when the round is over. */
	ask: string | null;
	/** Wheels that were asked for and said nothing: only whoever stands there knows whether they were turned. */
	silent: string[];
	/** Why the readings cannot be trusted, if they cannot. */
	warning: string | null;
	/** Dropouts of the turning wheel so far. */
	dropouts: number;
	/** Whether it has been turned for long enough to be judged: it may be let go. */
	enough: boolean;
}

/** A wheel turns from here, and has stopped below this for so long. */
const TURNS_KMH = 1.5;
const STOPPED_KMH = 0.5;
const STOPPED_FOR_S = 0.8;
/** A turn tells something from here. */
const ENOUGH_S = 1.2;
const GEAR_ENOUGH_S = 6;
/** Asked for so long and nothing came: the next is asked, and somebody has to say whether this one was turned. */
const PATIENCE_S = 12;
/** From one reading to the next down to less than this share, though it had been turning: its signal went, not the wheel. */
const DROP_SHARE = 0.35;
const DROP_FROM_KMH = 2.5;
const JUMP_SHARE = 1.6;
const JUMP_KMH = 6;
const ERRATIC_FROM = 2;
/** A weak sensor begins to read at this many times the speed of its mate, and this much above it. */
const WEAKER_TIMES = 2;
const WEAKER_KMH = 2;
const FROZEN_FOR_S = 3;
/** Slower than this a wheel's dropouts fall between two readings. */
const SLOWEST_HZ = 8;

interface Turn {
	fromS: number;
	lastMovingS: number;
	topKmh: number;
	lowestKmh: number;
	drops: number;
	mateTopKmh: number;
}

/**
 * Follows live wheel speeds while wheels are turned one after the other: notices which one turns, judges its signal, asks
 * for the next. The silence of a wheel says nothing until somebody says that it was turned; turned again, it is judged again.
 */
export class WheelRound {
	private readonly corners = new Map<string, Corner>();
	private readonly silent = new Set<string>();
	private readonly changed = new Set<string>();
	private readonly last = new Map<string, { kmh: number; sinceS: number }>();
	private turn: ({ channel: string } & Turn) | null = null;
	private ask: string | null;
	private askedSinceS: number | null = null;
	private warning: string | null = null;
	private lastS: number | null = null;
	private intervalS = NaN;

	constructor(
		private readonly wheels: readonly RoundWheel[],
		private readonly mode: RoundMode
	) {
		for (const { channel } of this.judged) {
			this.corners.set(channel, { channel, result: null, topKmh: 0, lowestKmh: NaN, text: '' });
		}
		this.ask = this.judged[0]?.channel ?? null;
	}

	private get judged(): readonly RoundWheel[] {
		return this.mode === 'hand' ? this.wheels : this.wheels.filter(({ driven }) => driven);
	}

	/** One reading of all wheels, by channel; NaN or nothing where a wheel was not read. */
	sample(timeS: number, kmh: ReadonlyMap<string, number>): RoundState {
		const stepS = this.lastS === null ? NaN : timeS - this.lastS;
		if (stepS > 0) this.intervalS = Number.isNaN(this.intervalS) ? stepS : this.intervalS * 0.9 + stepS * 0.1;
		this.askedSinceS ??= timeS;
		this.warning = this.whyNotTrusted(timeS, kmh);
		if (this.turn) this.follow(timeS, kmh);
		else this.notice(timeS, kmh);
		if (!this.turn && this.ask !== null && timeS - this.askedSinceS > PATIENCE_S) this.giveUp(timeS);
		for (const { channel } of this.wheels) {
			const now = kmh.get(channel) ?? NaN;
			const before = this.last.get(channel);
			if (before && before.kmh !== now && !Number.isNaN(now)) this.changed.add(channel);
			this.last.set(channel, before && before.kmh === now ? before : { kmh: now, sinceS: timeS });
		}
		this.lastS = timeS;
		return this.state;
	}

	get state(): RoundState {
		return {
			corners: [...this.corners.values()],
			turning: this.turn?.channel ?? null,
			ask: this.ask,
			silent: [...this.silent],
			warning: this.warning,
			dropouts: this.turn?.drops ?? 0,
			enough: this.turn !== null && this.turn.lastMovingS - this.turn.fromS >= ENOUGH_S
		};
	}

	/** Somebody says that this wheel was turned, briskly, and nothing came. */
	turnedInVain(channel: string): RoundState {
		if (this.silent.delete(channel)) {
			this.settle(
				channel,
				'dead',
				0,
				`${wheelWords(channel)} was turned and says nothing, by whoever turned it.`
			);
			if (this.ask === channel) this.askNext();
		}
		return this.state;
	}

	/** Somebody says that nobody has turned it: it is asked for again. */
	notTurned(channel: string): RoundState {
		if (this.silent.delete(channel)) {
			this.ask = channel;
			this.askedSinceS = this.lastS;
		}
		return this.state;
	}

	get rateHz(): number {
		return 1 / this.intervalS;
	}

	private whyNotTrusted(timeS: number, kmh: ReadonlyMap<string, number>): string | null {
		for (const { channel } of this.judged) {
			const now = kmh.get(channel) ?? NaN;
			const name = wheelWords(channel);
			if (isNotAvailable(now)) {
				this.settle(channel, 'not-trusted', 0, `${name} tells "not available": frozen after a hard fault.`);
				return `${name} is frozen: save and clear its code before this reading is believed.`;
			}
			const before = this.last.get(channel);
			// A wheel driven evenly may read the same for long; one that never read anything else is not read at all.
			if (
				before &&
				!this.changed.has(channel) &&
				before.kmh === now &&
				now > TURNS_KMH &&
				timeS - before.sinceS > FROZEN_FOR_S
			) {
				if (this.turn?.channel === channel) this.turn = null;
				this.settle(
					channel,
					'not-trusted',
					now,
					`${name} stays at ${now.toFixed(1)} km/h whatever turns: frozen.`
				);
				return `${name} does not change any more: save and clear its code before this reading is believed.`;
			}
		}
		if (this.rateHz < SLOWEST_HZ)
			return `Only ${this.rateHz.toFixed(1)} readings a second: choose fewer signals, or dropouts are missed.`;
		return null;
	}

	/** Whether a wheel has begun to turn; of an axle whose wheels both turn, the one that was asked for. */
	private notice(timeS: number, kmh: ReadonlyMap<string, number>): void {
		const moving = this.judged.filter(({ channel }) => {
			const now = kmh.get(channel) ?? NaN;
			const frozen =
				this.last.get(channel)?.kmh === now && this.corners.get(channel)?.result === 'not-trusted';
			return now > TURNS_KMH && !isNotAvailable(now) && !frozen;
		});
		const asked = moving.find(({ channel }) => channel === this.ask);
		const first = asked ?? moving[0];
		if (!first) return;
		const now = kmh.get(first.channel) ?? 0;
		this.turn = {
			channel: first.channel,
			fromS: timeS,
			lastMovingS: timeS,
			topKmh: now,
			lowestKmh: now,
			drops: 0,
			mateTopKmh: 0
		};
	}

	private follow(timeS: number, kmh: ReadonlyMap<string, number>): void {
		const { turn } = this;
		if (!turn) return;
		const now = kmh.get(turn.channel) ?? NaN;
		const before = this.last.get(turn.channel)?.kmh ?? NaN;
		const mate = this.wheels.find(({ channel }) => channel === turn.channel)?.mate;
		const mateNow = (mate ? kmh.get(mate) : undefined) ?? NaN;
		if (mateNow > turn.mateTopKmh && !isNotAvailable(mateNow)) turn.mateTopKmh = mateNow;
		// The mate of an axle tells whether the wheel still turned while its signal was gone.
		const mateTurns = mateNow > TURNS_KMH;
		if (before > DROP_FROM_KMH && now < DROP_SHARE * before && (mateTurns || now >= 0)) turn.drops += 1;
		if (now > JUMP_SHARE * before + JUMP_KMH && before > STOPPED_KMH) turn.drops += 1;
		if (now > STOPPED_KMH) {
			turn.lastMovingS = timeS;
			turn.topKmh = Math.max(turn.topKmh, now);
			turn.lowestKmh = Math.min(turn.lowestKmh, now);
		}
		const longEnough = this.mode === 'gear' && timeS - turn.fromS >= GEAR_ENOUGH_S;
		if (longEnough) this.judgeGear(kmh);
		else if (timeS - turn.lastMovingS >= STOPPED_FOR_S) this.judgeTurn();
	}

	private judgeTurn(): void {
		const { turn } = this;
		this.turn = null;
		if (!turn) return;
		// The last fall to standstill is a drop by its look; a wheel let go does that only by the hand that stops it.
		const drops = Math.max(0, turn.drops - 1);
		if (turn.lastMovingS - turn.fromS < ENOUGH_S && drops < ERRATIC_FROM) return;
		const name = wheelWords(turn.channel);
		const corner = this.corners.get(turn.channel);
		if (corner) corner.lowestKmh = turn.lowestKmh;
		const mate = this.wheels.find(({ channel }) => channel === turn.channel)?.mate ?? null;
		const mateLowest = mate ? (this.corners.get(mate)?.lowestKmh ?? NaN) : NaN;
		if (drops >= ERRATIC_FROM) {
			this.settle(
				turn.channel,
				'erratic',
				turn.topKmh,
				`${name} jumps and drops out, ${drops} times in one spin.`
			);
		} else if (turn.lowestKmh > WEAKER_TIMES * mateLowest && turn.lowestKmh > mateLowest + WEAKER_KMH) {
			const text = `${name} reads only from ${turn.lowestKmh.toFixed(1)} km/h, its mate from ${mateLowest.toFixed(1)} km/h: weaker.`;
			this.settle(turn.channel, 'weaker', turn.topKmh, text);
		} else if (turn.mateTopKmh > TURNS_KMH) {
			this.settle(
				turn.channel,
				'turns-mate',
				turn.topKmh,
				`${name} answers; its mate turns with it, as a driven axle does.`
			);
		} else
			this.settle(
				turn.channel,
				'answers',
				turn.topKmh,
				`${name} answers, up to ${turn.topKmh.toFixed(0)} km/h, without a break.`
			);
		this.askNext();
	}

	/** Driven evenly on stands: each wheel against its mate, which runs at the same speed. */
	private judgeGear(kmh: ReadonlyMap<string, number>): void {
		const { turn } = this;
		this.turn = null;
		if (!turn) return;
		for (const { channel } of this.judged) {
			const corner = this.corners.get(channel);
			const name = wheelWords(channel);
			const now = kmh.get(channel) ?? NaN;
			if (!corner || corner.result === 'not-trusted') continue;
			if (channel === turn.channel && turn.drops >= 1)
				this.settle(channel, 'erratic', turn.topKmh, `${name} drops out at even speed, ${turn.drops} times.`);
			else if (!(now > STOPPED_KMH) && !(corner.topKmh > 0))
				this.settle(channel, 'dead', 0, `${name} stays at zero while its mate is driven.`);
			else this.settle(channel, 'answers', Math.max(now, turn.topKmh), `${name} runs even.`);
		}
		this.ask = null;
	}

	private giveUp(timeS: number): void {
		if (this.ask === null) return;
		this.silent.add(this.ask);
		this.askNext(true);
		this.askedSinceS = timeS;
	}

	private settle(channel: string, result: CornerResult, topKmh: number, text: string): void {
		const corner = this.corners.get(channel);
		if (!corner) return;
		this.silent.delete(channel);
		// What cannot be trusted stays so until the reading moves again; that it moves now, its turn has shown.
		this.corners.set(channel, { ...corner, result, topKmh: Math.max(topKmh, 0), text });
		if (this.ask === channel && result === 'not-trusted') this.askNext();
	}

	private askNext(skip = false): void {
		if (!skip && this.ask !== null && this.corners.get(this.ask)?.result === null) return;
		const order = this.judged.map(({ channel }) => channel);
		const from = this.ask === null ? -1 : order.indexOf(this.ask);
		const round = [...order.slice(from + 1), ...order.slice(0, from + 1)];
		this.ask = round.find((channel) => this.corners.get(channel)?.result === null) ?? null;
		this.askedSinceS = this.lastS;
	}
}
