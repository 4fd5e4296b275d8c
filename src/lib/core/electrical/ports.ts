import type { Result } from '../result';

/** The narrow ports through which the application reaches instruments: real ones, or the stand-ins of a bench vehicle. */

export interface MeterRequest {
	/** `volts-ac` is the true effective value of what alternates; `ohms` is only meaningful on a dead circuit. */
	mode: 'volts-dc' | 'volts-ac' | 'ohms' | 'amps';
	/** Node the red lead is on; for `amps` the element of the wiring that the meter is put into. */
	red: string;
	/** Node the black lead is on; not used for `amps`. */
	black: string;
}

export interface MeterReading {
	/** In V, Ω or A; null where the display shows "over the range". */
	value: number | null;
	unit: 'V' | 'Ω' | 'A';
	/** As the display shows it. */
	text: string;
}

export interface MeterPort {
	read(request: MeterRequest): Promise<Result<MeterReading>>;
}

export interface ScopeProbe {
	/** Node of the tip. */
	tip: string;
	/** Node of the clip; the vehicle's body where absent. */
	clip?: string;
}

export interface ScopeRequest {
	/** One to four. */
	probes: ScopeProbe[];
	rateHz: number;
	durationS: number;
	/** Effective noise of the input, in volts. */
	noiseVolts?: number;
	/** The capture begins a tenth of its length before the first crossing. Without it, at once. */
	trigger?: { probe: number; volts: number; slope: 'rising' | 'falling' };
}

export interface ScopeCapture {
	rateHz: number;
	/** Volts, one array a probe, all of the same length. */
	channels: Float32Array[];
	/** Seconds from the first sample to the trigger; null where there was none. */
	triggerAtS: number | null;
}

export interface ScopePort {
	capture(request: ScopeRequest): Promise<Result<ScopeCapture>>;
}

/** Something held to the wiring that the vehicle did not have. */
export type SignalSource =
	/** A generator with current or voltage levels of the vehicle's sensor family, at the open plug of a sensor. */
	| { kind: 'sine' | 'square'; position: string; hertz: number; volts: number }
	/** Jumper leads from the sensor of another wheel to the open plug of this one. */
	| { kind: 'mate'; position: string; from: string }
	| { kind: 'resistor'; a: string; b: string; ohms: number }
	/** A test lamp: cold, a few ohms. */
	| { kind: 'lamp'; a: string; b: string }
	| { kind: 'jumper'; a: string; b: string };
