import { expose, transfer } from 'comlink';
import { framePieces } from '../lib/core/live/pieces';
import { analyseCapture } from '../lib/core/scope/analyseCapture';
import { durationS, type Capture } from '../lib/core/scope/capture';
import { decodeCapture, encodeCapture, MOST_CAPTURE_SAMPLES } from '../lib/core/scope/captureChunk';
import { CaptureReader } from '../lib/core/scope/captureRows';
import type { ScopeAnalysis } from '../lib/core/scope/findings';
import { levelsOf } from '../lib/core/scope/levels';
import { activePulses, passivePulses } from '../lib/core/scope/pulses';
import { pyramidOf, spanLine, type Pyramid } from '../lib/core/scope/pyramid';
import { readWav } from '../lib/core/scope/readWav';
import { runningMean, runningMedian } from '../lib/core/scope/smooth';

/** What is done to the picture, never to what the analysis sees. */
export type PictureFilter = 'none' | 'mean' | 'median';

interface Drawable {
	volts: Float32Array;
	pyramid: Pyramid;
}
interface Held {
	capture: Capture;
	drawn: Map<string, Drawable>;
}
const held = new Map<string, Held>();

/** Window of the filters: a tenth of a tooth at the usual hundreds of hertz, never more than an odd handful of samples. */
const FILTER_S = 0.00025;
const MOST_MEDIAN_SAMPLES = 101;
const LOOK_SAMPLES = 400_000;

function captureOf(key: string): Held {
	const one = held.get(key);
	if (!one) throw new Error(`no capture ${key} is loaded`);
	return one;
}

function drawable(key: string, channel: string, filter: PictureFilter): Drawable {
	const { capture, drawn } = captureOf(key);
	const name = `${channel} ${filter}`;
	const known = drawn.get(name);
	if (known) return known;
	const raw = capture.channels.find((one) => one.name === channel)?.volts ?? new Float32Array();
	const width = Math.max(3, Math.round(FILTER_S * capture.rateHz) | 1);
	const volts =
		filter === 'none'
			? raw
			: filter === 'mean'
				? runningMean(raw, width)
				: runningMedian(raw, Math.min(MOST_MEDIAN_SAMPLES, width));
	const made = { volts, pyramid: pyramidOf(volts) };
	drawn.set(name, made);
	return made;
}

export interface CaptureShape {
	rateHz: number;
	startS: number;
	durationS: number;
	channels: { name: string; lowV: number; highV: number }[];
}

function shapeOf({ capture }: Held): CaptureShape {
	return {
		rateHz: capture.rateHz,
		startS: capture.startS,
		durationS: durationS(capture),
		channels: capture.channels.map(({ name, volts }) => {
			let [lowV, highV] = [Infinity, -Infinity];
			for (const value of volts) {
				if (value < lowV) lowV = value;
				if (value > highV) highV = value;
			}
			return { name, lowV, highV };
		})
	};
}

export interface DrawnLine {
	/** Seconds from the start of the capture. */
	timeS: Float64Array;
	volts: Float32Array;
}

const worker = {
	load(key: string, body: ArrayBuffer): CaptureShape | { error: string } {
		const capture = decodeCapture(new Uint8Array(body));
		if (!capture.ok) return { error: capture.error };
		const one = { capture: capture.value, drawn: new Map() };
		held.set(key, one);
		return shapeOf(one);
	},
	analyse: (key: string, teeth: number | null): ScopeAnalysis =>
		analyseCapture(captureOf(key).capture, { teeth: teeth ?? undefined }),
	/** One channel over a span, in seconds from the start of the capture. */
	line(
		key: string,
		channel: string,
		fromS: number,
		toS: number,
		pixels: number,
		filter: PictureFilter,
		shiftS = 0
	): DrawnLine {
		const { rateHz } = captureOf(key).capture;
		const { volts, pyramid } = drawable(key, channel, filter);
		const line = spanLine(volts, pyramid, (fromS - shiftS) * rateHz, (toS - shiftS) * rateHz, pixels);
		const timeS = line.at.map((at) => at / rateHz + shiftS);
		return transfer({ timeS, volts: line.volts }, [timeS.buffer, line.volts.buffer]);
	},
	/** First rising edge of a channel, in seconds: two captures are laid together by it. */
	firstEdgeS(key: string, channel: string): number {
		const { capture } = captureOf(key);
		const volts = capture.channels.find(({ name }) => name === channel)?.volts.subarray(0, LOOK_SAMPLES);
		if (!volts) return 0;
		const levels = levelsOf(volts);
		const pulses = levels.kind === 'active' ? activePulses(volts, levels) : passivePulses(volts, levels);
		return (pulses.rise[0] ?? 0) / capture.rateHz;
	}
};

export interface FileLooked {
	shape: CaptureShape;
	analysis: ScopeAnalysis;
	problems: { line: number; reason: string }[];
	bytes: number;
}

const importer = {
	/** Reads a file of columns or of sound and analyses it; its samples are held under `key`. */
	async read(
		key: string,
		file: File,
		fullScaleV: number,
		teeth: number | null
	): Promise<FileLooked | { error: string }> {
		const isWav = /\.wav$/i.test(file.name);
		let capture: Capture;
		let problems: FileLooked['problems'] = [];
		try {
			if (isWav) {
				const read = readWav(new Uint8Array(await file.arrayBuffer()), fullScaleV);
				if (!read.ok) return { error: read.error };
				capture = read.value;
			} else {
				const packed = file.name.endsWith('.gz');
				const stream = packed ? file.stream().pipeThrough(new DecompressionStream('gzip')) : file.stream();
				const reader = new CaptureReader();
				const pieces = stream.getReader();
				for (;;) {
					const { done, value } = await pieces.read();
					if (done || !reader.push(value)) break;
				}
				const read = reader.end();
				if (!read.ok) {
					const { line, column, reason } = read.error;
					return { error: `Line ${line}${column === null ? '' : `, column ${column}`}: ${reason}` };
				}
				problems = read.value.problems;
				capture = read.value;
			}
		} catch {
			return { error: 'It could not be read from the disk, or its compression is damaged' };
		}
		const samples = capture.channels.reduce((sum, { volts }) => sum + volts.length, 0);
		if (samples > MOST_CAPTURE_SAMPLES)
			return {
				error: `It holds ${(samples / 1e6).toFixed(0)} million samples, more than ${MOST_CAPTURE_SAMPLES / 1e6} million: cut it`
			};
		const one = { capture, drawn: new Map() };
		held.set(key, one);
		return {
			shape: shapeOf(one),
			analysis: analyseCapture(capture, { teeth: teeth ?? undefined }),
			problems,
			bytes: file.size
		};
	},
	/** The samples as the server takes them, after what is said about them; channels under the names they were given. */
	packed(key: string, about: string, names: string[]): Uint8Array<ArrayBuffer> {
		const { capture } = captureOf(key);
		const channels = capture.channels.map(({ volts, name }, i) => ({ name: names[i] ?? name, volts }));
		const body = framePieces([new TextEncoder().encode(about), encodeCapture({ ...capture, channels })]);
		return transfer(body, [body.buffer]);
	}
};

const whole = { ...worker, ...importer };
export type ScopeWorker = typeof whole;
expose(whole);
