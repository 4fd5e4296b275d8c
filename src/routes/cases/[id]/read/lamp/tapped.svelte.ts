import { readFlashes, type Flash, type LampReading } from '$lib/core/blink/readFlashes';

const MS_PER_S = 1000;

/** Flashes of a lamp as somebody taps along, and what they read as by now. */
export class Tapped {
	flashes = $state<Flash[]>([]);
	/** Whether a hand holds the key while the lamp is lit, or taps once at each flash. */
	holding = $state(false);
	lit = $state(false);
	private beganMs: number | null = null;

	readonly reading = $derived.by((): LampReading | null => {
		const whole = this.lit ? this.flashes.slice(0, -1) : this.flashes;
		const read = whole.length > 0 ? readFlashes(whole) : null;
		return read?.ok ? read.value : null;
	});

	/** The lamp lights. @param nowMs of a clock that only goes forward */
	on(nowMs: number): void {
		if (this.lit) return;
		this.beganMs ??= nowMs;
		this.flashes = [...this.flashes, { onS: this.secondsAt(nowMs), offS: null }];
		this.lit = this.holding;
	}

	/** The lamp goes out. */
	off(nowMs: number): void {
		const last = this.flashes.at(-1);
		if (!this.lit || !last) return;
		this.lit = false;
		const offS = Math.max(last.onS + 0.01, this.secondsAt(nowMs));
		this.flashes = [...this.flashes.slice(0, -1), { ...last, offS }];
	}

	/** Takes the last flash back. */
	undo(): void {
		this.lit = false;
		this.flashes = this.flashes.slice(0, -1);
		if (this.flashes.length === 0) this.beganMs = null;
	}

	again(): void {
		this.lit = false;
		this.flashes = [];
		this.beganMs = null;
	}

	private secondsAt(nowMs: number): number {
		return Math.round(nowMs - (this.beganMs ?? nowMs)) / MS_PER_S;
	}
}
