import { isNotAvailable } from '../core/live/recording';

/** Sound that follows a wheel: its pitch from the speed, silence at standstill, a click when the signal drops out. */
export class WheelSound {
	private context: AudioContext | null = null;
	private tone: OscillatorNode | null = null;
	private loudness: GainNode | null = null;
	muted = false;
	private last = 0;

	/** Browsers give sound only after a key or a click: call this from one. */
	start(): void {
		if (this.context) return void this.context.resume();
		const context = new AudioContext();
		const tone = context.createOscillator();
		tone.type = 'triangle';
		const loudness = context.createGain();
		loudness.gain.value = 0;
		tone.connect(loudness).connect(context.destination);
		tone.start();
		this.context = context;
		this.tone = tone;
		this.loudness = loudness;
	}

	/** @param kmh what the wheel reads now; null or "not available" is silence */
	follow(kmh: number | null): void {
		const { context, tone, loudness, last } = this;
		const now = kmh === null || isNotAvailable(kmh) ? 0 : kmh;
		this.last = now;
		if (!context || !tone || !loudness) return;
		const at = context.currentTime;
		const heard = !this.muted && now >= SILENT_BELOW_KMH;
		loudness.gain.setTargetAtTime(heard ? LOUDNESS : 0, at, GLIDE_S);
		if (heard) tone.frequency.setTargetAtTime(pitchHz(now), at, GLIDE_S);
		if (last > CLICK_FROM_KMH && now < CLICK_SHARE * last && !this.muted) this.click(context);
	}

	stop(): void {
		void this.context?.close();
		this.context = this.tone = this.loudness = null;
	}

	private click(context: AudioContext): void {
		const length = Math.round(context.sampleRate * CLICK_S);
		const buffer = context.createBuffer(1, length, context.sampleRate);
		const samples = buffer.getChannelData(0);
		for (let i = 0; i < length; i++) samples[i] = (i % 2 ? 0.8 : -0.8) * (1 - i / length);
		const source = context.createBufferSource();
		source.buffer = buffer;
		source.connect(context.destination);
		source.start();
	}
}

const SILENT_BELOW_KMH = 0.5;
const LOUDNESS = 0.25;
const GLIDE_S = 0.02;
const CLICK_FROM_KMH = 2;
const CLICK_SHARE = 0.4;
const CLICK_S = 0.012;
const LOWEST_HZ = 110;
/** Twice as fast is an octave and a bit: small changes are heard at walking pace and on the road. */
const pitchHz = (kmh: number): number => LOWEST_HZ * (1 + kmh / 6) ** 0.85;
