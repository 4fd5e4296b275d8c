import { fail, ok, type Result } from '../result';
import type { Capture } from './capture';

const INTEGER = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;
const MOST_CHANNELS = 16;

/**
 * Reads a capture from a sound file (RIFF WAVE: integers of 8, 16, 24 or 32 bits, or floats of 32), as sound inputs and
 * some instruments write them. A file of sound knows no volts: full scale is what the caller says.
 *
 * @param fullScaleV volts at full scale
 */
export function readWav(bytes: Uint8Array, fullScaleV = 1): Result<Capture> {
	const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
	const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
	if (bytes.length < 12 || word(0) !== 'RIFF' || word(8) !== 'WAVE')
		return fail('byte 0: expected a RIFF WAVE file');
	let format: { code: number; channels: number; rateHz: number; bits: number } | null = null;
	for (let at = 12; at + 8 <= bytes.length;) {
		const size = view.getUint32(at + 4, true);
		const from = at + 8;
		if (word(at) === 'fmt ') {
			if (size < 16 || from + size > bytes.length) return fail(`byte ${at}: the format is cut off`);
			const code = view.getUint16(from, true);
			format = {
				code: code === EXTENSIBLE && size >= 26 ? view.getUint16(from + 24, true) : code,
				channels: view.getUint16(from + 2, true),
				rateHz: view.getUint32(from + 4, true),
				bits: view.getUint16(from + 14, true)
			};
		} else if (word(at) === 'data') {
			if (!format) return fail(`byte ${at}: the samples come before their format`);
			return samplesOf(view, from, Math.min(size, bytes.length - from), format, fullScaleV);
		}
		at = from + size + (size % 2);
	}
	return fail(`byte ${bytes.length}: expected samples, the file ends`);
}

function samplesOf(
	view: DataView,
	from: number,
	size: number,
	{ code, channels, rateHz, bits }: { code: number; channels: number; rateHz: number; bits: number },
	fullScaleV: number
): Result<Capture> {
	const read = READERS[`${code}/${bits}`];
	if (!read) return fail(`its samples are of a kind that is not read here (format ${code}, ${bits} bits)`);
	if (channels < 1 || channels > MOST_CHANNELS || rateHz < 1)
		return fail('its format names no channels or no rate');
	const bytesEach = bits / 8;
	const count = Math.floor(size / bytesEach / channels);
	if (count < 2) return fail('there are no samples in it');
	return ok({
		rateHz,
		startS: 0,
		channels: Array.from({ length: channels }, (_, c) => {
			const volts = new Float32Array(count);
			for (let i = 0; i < count; i++)
				volts[i] = read(view, from + (i * channels + c) * bytesEach) * fullScaleV;
			return { name: `channel_${c + 1}`, volts };
		})
	});
}

/** By format code and bits: one sample, −1 to 1. */
const READERS: Record<string, (view: DataView, at: number) => number> = {
	[`${INTEGER}/8`]: (view, at) => (view.getUint8(at) - 128) / 128,
	[`${INTEGER}/16`]: (view, at) => view.getInt16(at, true) / 2 ** 15,
	[`${INTEGER}/24`]: (view, at) => (view.getInt8(at + 2) * 65536 + view.getUint16(at, true)) / 2 ** 23,
	[`${INTEGER}/32`]: (view, at) => view.getInt32(at, true) / 2 ** 31,
	[`${FLOAT}/32`]: (view, at) => view.getFloat32(at, true)
};
