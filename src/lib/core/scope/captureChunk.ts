import { deflateSync, inflateSync } from 'fflate';
import { fail, ok, type Result } from '../result';
import type { Capture } from './capture';

/**
 * A capture as it is kept. Layout: `JSC1`, length of the header (32 bits, little endian), header as JSON (`rateHz`,
 * `startS`, `samples`, `channels`: name, `offsetV`, `stepV`), then, deflated, per channel all low bytes and all high bytes
 * of the differences from sample to sample, samples counted in steps of `stepV` above `offsetV` (16 bits). Sixteen bits
 * over the span of the channel are finer than any instrument's own.
 */
const MAGIC = [0x4a, 0x53, 0x43, 0x31];
const HEAD_BYTES = MAGIC.length + 4;
const STEPS = 65_535;
const FAST = 3;
export const MOST_CAPTURE_SAMPLES = 40_000_000;
const MOST_CHANNELS = 16;

interface Header {
	rateHz: number;
	startS: number;
	samples: number;
	channels: { name: string; offsetV: number; stepV: number }[];
}

export function encodeCapture({ rateHz, startS, channels }: Capture): Uint8Array<ArrayBuffer> {
	const samples = channels[0]?.volts.length ?? 0;
	const plain = new Uint8Array(samples * 2 * channels.length);
	const told = channels.map(({ name, volts }, c) => {
		if (volts.length !== samples) throw new RangeError('channels of a capture are of one length');
		let [low, high] = [Infinity, -Infinity];
		for (const value of volts) {
			if (value < low) low = value;
			if (value > high) high = value;
		}
		if (samples === 0) [low, high] = [0, 0];
		const stepV = high > low ? (high - low) / STEPS : 1;
		const from = c * samples * 2;
		let before = 0;
		for (let i = 0; i < samples; i++) {
			const count = Math.round(((volts[i] as number) - low) / stepV);
			const change = (count - before) & 0xffff;
			plain[from + i] = change & 0xff;
			plain[from + samples + i] = change >> 8;
			before = count;
		}
		return { name, offsetV: low, stepV };
	});
	const header = new TextEncoder().encode(
		JSON.stringify({ rateHz, startS, samples, channels: told } satisfies Header)
	);
	const packed = deflateSync(plain, { level: FAST });
	const bytes = new Uint8Array(HEAD_BYTES + header.length + packed.length);
	bytes.set(MAGIC);
	new DataView(bytes.buffer).setUint32(MAGIC.length, header.length, true);
	bytes.set(header, HEAD_BYTES);
	bytes.set(packed, HEAD_BYTES + header.length);
	return bytes;
}

export function decodeCapture(bytes: Uint8Array): Result<Capture> {
	if (bytes.length < HEAD_BYTES || !MAGIC.every((byte, i) => bytes[i] === byte))
		return fail('byte 0: this is no capture (JSC1)');
	const length = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(MAGIC.length, true);
	const header = readHeader(bytes.subarray(HEAD_BYTES, HEAD_BYTES + length));
	if (!header) return fail(`byte ${HEAD_BYTES}: expected the rate, the number of samples and the channels`);
	const { rateHz, startS, samples, channels } = header;
	const wanted = samples * 2 * channels.length;
	let plain: Uint8Array;
	try {
		plain = inflateSync(bytes.subarray(HEAD_BYTES + length), { out: new Uint8Array(wanted) });
	} catch {
		return fail(`byte ${HEAD_BYTES + length}: the compression is damaged`);
	}
	if (plain.length !== wanted) return fail(`expected ${wanted} bytes of samples, found ${plain.length}`);
	return ok({
		rateHz,
		startS,
		channels: channels.map(({ name, offsetV, stepV }, c) => {
			const volts = new Float32Array(samples);
			const from = c * samples * 2;
			let count = 0;
			for (let i = 0; i < samples; i++) {
				count = (count + (plain[from + i] as number) + ((plain[from + samples + i] as number) << 8)) & 0xffff;
				volts[i] = offsetV + count * stepV;
			}
			return { name, volts };
		})
	});
}

function readHeader(bytes: Uint8Array): Header | null {
	let told: Partial<Header>;
	try {
		told = JSON.parse(new TextDecoder().decode(bytes)) as Partial<Header>;
	} catch {
		return null;
	}
	const { rateHz, startS, samples, channels } = told ?? {};
	const finite = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
	const sound =
		finite(rateHz) &&
		rateHz > 0 &&
		finite(startS) &&
		Number.isInteger(samples) &&
		Array.isArray(channels) &&
		channels.length <= MOST_CHANNELS &&
		channels.every(
			({ name, offsetV, stepV }) => typeof name === 'string' && finite(offsetV) && finite(stepV)
		) &&
		Number(samples) >= 0 &&
		Number(samples) * channels.length <= MOST_CAPTURE_SAMPLES;
	return sound ? (told as Header) : null;
}
