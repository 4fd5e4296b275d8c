import { expose, transfer } from 'comlink';
import { analyseLive, type LiveVehicle } from '../lib/core/live/analyse';
import { encodeChunk, type Chunk } from '../lib/core/live/chunk';
import {
	guessColumns,
	headerKey,
	type ColumnGuess,
	type ColumnMapping
} from '../lib/core/live/columnMapping';
import { offersByBehaviour } from '../lib/core/live/columnBehaviour';
import { columnSample } from '../lib/core/live/columnSample';
import { csvShape, type CsvShape, type RecordingError } from '../lib/core/live/csvShape';
import { readRecording } from '../lib/core/live/readRecording';
import { conditionsOver, type ConditionOver, type NamedCondition } from '../lib/core/live/conditionsOver';
import { decimate, lowerBound, type Line } from '../lib/core/live/decimate';
import type { LiveAnalysis } from '../lib/core/live/findings';
import { alignedBy, type Alignment } from '../lib/core/live/align';
import { isNotAvailable, isSpeed } from '../lib/core/live/recording';
import { hex } from '../lib/core/bytes';
import { FrameLogReader } from '../lib/core/bus/frameLog';
import { decodeFrames, type FrameSignal, type TimedFrame } from '../lib/core/live/frameSignals';
import { framePieces, readPieces } from '../lib/core/live/pieces';

/** Looks at recordings away from the page's own thread: holds them, analyses them, and gives out what is drawn. */
const held = new Map<string, Chunk>();
const recordingOf = (key: string) => {
	const chunk = held.get(key);
	if (!chunk) throw new Error(`no recording ${key}`);
	return { ...chunk, problems: [] };
};

/** "Not available" is no speed and would squeeze all that is one. */
const drawable = (name: string, column: Float64Array): Float64Array =>
	isSpeed(name) ? column.map((value) => (isNotAvailable(value) ? NaN : value)) : column;

const worker = {
	/** Takes a recording in, from its pieces. @returns what is in it, or why it cannot be read */
	load(
		key: string,
		body: ArrayBuffer
	): { channels: string[]; fromS: number; toS: number } | { error: string } {
		const chunk = readPieces(new Uint8Array(body));
		if (!chunk.ok) return { error: chunk.error };
		held.set(key, chunk.value);
		const { timeS, channels } = chunk.value;
		return { channels: [...channels.keys()], fromS: timeS[0] ?? 0, toS: timeS.at(-1) ?? 0 };
	},
	analyse: (key: string, vehicle: LiveVehicle): LiveAnalysis => analyseLive(recordingOf(key), vehicle),
	/** Lines for the chart: at most two points a pixel, never losing a peak; the samples themselves when few enough. */
	lines(key: string, channels: string[], fromS: number, toS: number, pixels: number, shiftS = 0): Line[] {
		const { timeS, channels: columns } = recordingOf(key);
		const lines = channels.map((name) => {
			const column = drawable(name, columns.get(name) ?? new Float64Array(timeS.length).fill(NaN));
			return decimate(timeS, column, fromS - shiftS, toS - shiftS, pixels, shiftS);
		});
		return transfer(
			lines,
			lines.flatMap(({ x, y }) => [x.buffer, y.buffer])
		);
	},
	/** Samples as they are, from a time on: time first, then the channels in order. */
	rows(key: string, fromS: number, count: number): number[][] {
		const { timeS, channels } = recordingOf(key);
		const from = Math.max(0, Math.min(timeS.length - count, lowerBound(timeS, fromS)));
		const columns = [...channels.values()];
		return Array.from({ length: Math.min(count, timeS.length - from) }, (_, n) => [
			timeS[from + n] ?? 0,
			...columns.map((column) => column[from + n] ?? NaN)
		]);
	},
	conditions: (key: string, conditions: NamedCondition[]): ConditionOver[] =>
		conditionsOver(recordingOf(key), conditions),
	/** Seconds by which the other must be moved to lie on the first. */
	align: (key: string, other: string, how: Alignment): number =>
		alignedBy(recordingOf(key), recordingOf(other), how)
};
/** A file that was chosen, until it is read or given up. */
let file: Uint8Array | null = null;
let log: File | null = null;
const MOST_IDS = 200;

/** @returns why it cannot be read, null when it was */
async function eachFrame(chosen: File, take: (frame: TimedFrame) => void): Promise<string | null> {
	const packed = chosen.name.endsWith('.gz');
	const reader = new FrameLogReader({
		frame: ({ timeS, id, extended, remote, data, length }) => {
			if (remote) return;
			const digits = id.toString(16).toUpperCase();
			take({ timeS, id: digits.padStart(extended ? 8 : 3, '0'), data: data.subarray(0, length) });
		},
		badLine: () => undefined
	});
	try {
		const stream = packed ? chosen.stream().pipeThrough(new DecompressionStream('gzip')) : chosen.stream();
		const pieces = stream.getReader();
		for (;;) {
			const { done, value } = await pieces.read();
			if (done) break;
			reader.push(value);
		}
		reader.end();
		return null;
	} catch {
		return packed ? 'Its compression is damaged.' : 'It could not be read from the disk.';
	}
}

const importer = {
	/**
	 * Looks at a file of columns: what they seem to be, and by what its header is remembered.
	 * @param wheels channels of the vehicle's wheels, in the order in which tools write them
	 */
	async inspect(chosen: File, wheels: string[]): Promise<Inspected | { error: string }> {
		const packed = chosen.name.endsWith('.gz');
		try {
			const stream = packed ? chosen.stream().pipeThrough(new DecompressionStream('gzip')) : chosen.stream();
			file = new Uint8Array(await new Response(stream).arrayBuffer());
		} catch {
			return { error: packed ? 'Its compression is damaged.' : 'It could not be read from the disk.' };
		}
		const shape = csvShape(file);
		if (!shape.ok) return { error: whereWords(shape.error) };
		return {
			key: headerKey(shape.value),
			guesses: offersByBehaviour(guessColumns(shape.value), columnSample(file, shape.value), wheels),
			header: { header: shape.value.header, units: shape.value.units },
			sample: shape.value.sample,
			bytes: file.length
		};
	},
	/** Looks at a frame log: which identifiers come how often. */
	async inspectFrames(chosen: File): Promise<FramesSeen | { error: string }> {
		log = chosen;
		const seen = new Map<string, { count: number; firstS: number; lastS: number; sample: string }>();
		let frames = 0;
		const trouble = await eachFrame(chosen, ({ timeS, id, data }) => {
			frames += 1;
			const one = seen.get(id);
			if (one) {
				one.count += 1;
				one.lastS = timeS;
			} else seen.set(id, { count: 1, firstS: timeS, lastS: timeS, sample: hex(data) });
		});
		if (trouble) return { error: trouble };
		if (frames === 0)
			return { error: 'There is no frame in it: expected lines as (seconds) interface ID#DATA.' };
		const ids = [...seen]
			.map(([id, { count, firstS, lastS, sample }]) => ({
				id,
				count,
				everyS: count > 1 ? (lastS - firstS) / (count - 1) : 0,
				sample
			}))
			.sort((a, b) => b.count - a.count);
		return { frames, ids: ids.slice(0, MOST_IDS) };
	},
	/** Reads a frame log by a list of signals and analyses it; the samples are held under `key`. */
	async readFrames(
		key: string,
		signals: FrameSignal[],
		vehicle: LiveVehicle
	): Promise<FileRead | { error: string }> {
		if (!log) return { error: 'The file is no longer here: choose it again.' };
		const wanted = new Set(signals.map(({ frameId }) => frameId));
		const kept: TimedFrame[] = [];
		const trouble = await eachFrame(log, ({ timeS, id, data }) => {
			if (wanted.has(id)) kept.push({ timeS, id, data: data.slice() });
		});
		if (trouble) return { error: trouble };
		const read = decodeFrames(kept, signals);
		if (!read.ok) return { error: `${read.error}.` };
		held.set(key, read.value);
		return { analysis: analyseLive(read.value, vehicle), problems: [], rows: read.value.timeS.length };
	},
	/** Reads the file by a mapping and analyses it; the samples are held under `key`. */
	read(key: string, mapping: ColumnMapping, vehicle: LiveVehicle): FileRead | { error: string } {
		if (!file) return { error: 'The file is no longer here: choose it again.' };
		const read = readRecording(file, mapping);
		if (!read.ok) return { error: whereWords(read.error) };
		const { timeS, channels, problems } = read.value;
		held.set(key, { timeS, channels });
		return { analysis: analyseLive(read.value, vehicle), problems, rows: timeS.length };
	},
	/** Samples as the server takes them, after what is said about them. */
	packed(key: string, about: string): Uint8Array<ArrayBuffer> {
		const body = framePieces([new TextEncoder().encode(about), encodeChunk(recordingOf(key))]);
		return transfer(body, [body.buffer]);
	}
};

/** What the worker does; one object, two subjects. */
const whole = { ...worker, ...importer };
export type LiveWorker = typeof whole;
expose(whole);

export interface Inspected {
	key: string;
	header: Pick<CsvShape, 'header' | 'units'>;
	guesses: ColumnGuess[];
	sample: string[][];
	bytes: number;
}
export interface FramesSeen {
	frames: number;
	/** The most frequent first. */
	ids: { id: string; count: number; everyS: number; sample: string }[];
}
export interface FileRead {
	analysis: LiveAnalysis;
	problems: { line: number; reason: string }[];
	rows: number;
}

const whereWords = ({ line, column, reason }: RecordingError): string =>
	`Line ${line}${column === null ? '' : `, column ${column}`}: ${reason}.`;
