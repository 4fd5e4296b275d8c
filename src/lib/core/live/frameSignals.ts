import { ok, fail, type Result } from '../result';
import type { Recording } from './recording';

/** Where a value stands in frames that are sent again and again: found by the shop, or told by the vehicle's maker. */
export interface FrameSignal {
	/** Identifier, upper-case hex: three digits, or eight for the long ones. */
	frameId: string;
	channel: string;
	/** First byte that the value touches, from 0. */
	firstByte: number;
	bits: number;
	/** Lowest bit within its lowest byte, from 0. */
	shift: number;
	order: 'big' | 'little';
	signed: boolean;
	/** Value = counts · factor + offset, in the channel's unit. */
	factor: number;
	offset: number;
	/** Only frames with this in a byte carry it: the number of a periodic identifier, a page; null = all. */
	only: { byte: number; value: number } | null;
	/** Counts that mean "not available"; null = none. */
	invalid: number | null;
}

const NOT_AVAILABLE_KMH = 655.35;
/** Frames nearer together than this belong to one moment. */
const ONE_MOMENT_S = 0.002;
const MOST_BITS = 32;

/** @returns the value, NaN for "not available", null where the frame does not carry it */
export function frameValue(signal: FrameSignal, data: Uint8Array): number | null {
	const { firstByte, bits, shift, order, signed, only, invalid } = signal;
	if (only && data[only.byte] !== only.value) return null;
	const bytes = Math.ceil((bits + shift) / 8);
	if (bits < 1 || bits > MOST_BITS || firstByte + bytes > data.length) return null;
	let whole = 0;
	for (let i = 0; i < bytes; i++) {
		const at = order === 'big' ? firstByte + i : firstByte + bytes - 1 - i;
		whole = whole * 256 + (data[at] ?? 0);
	}
	const unsigned = Math.floor(whole / 2 ** shift) % 2 ** bits;
	if (invalid !== null && unsigned === invalid) return NaN;
	const counts = signed && unsigned >= 2 ** (bits - 1) ? unsigned - 2 ** bits : unsigned;
	return counts * signal.factor + signal.offset;
}

export interface TimedFrame {
	timeS: number;
	/** Identifier as {@link FrameSignal.frameId}. */
	id: string;
	data: Uint8Array;
}

/** A recording out of frames, by a list of signals. Each channel has values where its frames came, NaN between. */
export function decodeFrames(
	frames: Iterable<TimedFrame>,
	signals: readonly FrameSignal[]
): Result<Recording> {
	const byId = new Map<string, FrameSignal[]>();
	for (const signal of signals) byId.set(signal.frameId, [...(byId.get(signal.frameId) ?? []), signal]);
	const names = [...new Set(signals.map(({ channel }) => channel))];
	const time: number[] = [];
	const columns = new Map(names.map((name) => [name, [] as number[]]));
	let firstS: number | null = null;
	for (const { timeS, id, data } of frames) {
		const here = byId.get(id);
		if (!here) continue;
		for (const signal of here) {
			const value = frameValue(signal, data);
			if (value === null) continue;
			firstS ??= timeS;
			const at = timeS - firstS;
			const last = time.at(-1) ?? -Infinity;
			if (at < last) continue;
			if (at - last > ONE_MOMENT_S || time.length === 0) {
				time.push(at);
				for (const column of columns.values()) column.push(NaN);
			}
			const column = columns.get(signal.channel);
			if (column) column[time.length - 1] = Number.isNaN(value) ? NOT_AVAILABLE_KMH : value;
		}
	}
	if (time.length < 2) {
		const wanted = [...byId.keys()].join(', ');
		return fail(`no frame of ${wanted === '' ? 'any known identifier' : wanted} is in it`);
	}
	return ok({
		timeS: Float64Array.from(time),
		channels: new Map([...columns].map(([name, column]) => [name, Float64Array.from(column)])),
		problems: []
	});
}
