const SHORT_S = 0.07;
const LONG_S = 0.35;
const HIGH_HZ = 1320;
const LOW_HZ = 330;
const LOUDNESS = 0.12;

/** Short sounds for a hand that is busy and an eye that is elsewhere. Browsers give sound only after a key or a click. */
export class Beep {
	private context: AudioContext | null = null;

	/** A press was counted. */
	tick(): void {
		this.sound(HIGH_HZ, SHORT_S);
	}
	/** The step is done. */
	done(): void {
		this.sound(HIGH_HZ, LONG_S);
	}
	/** It has to be done again. */
	again(): void {
		this.sound(LOW_HZ, LONG_S);
	}

	stop(): void {
		void this.context?.close();
		this.context = null;
	}

	private sound(hertz: number, seconds: number): void {
		this.context ??= new AudioContext();
		const { context } = this;
		const [tone, loudness] = [context.createOscillator(), context.createGain()];
		tone.frequency.value = hertz;
		loudness.gain.value = LOUDNESS;
		tone.connect(loudness).connect(context.destination);
		tone.start();
		tone.stop(context.currentTime + seconds);
	}
}
