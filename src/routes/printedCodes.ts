import type { CodeReader } from '../workers/codeReader.worker';

/** The largest side of a picture in which codes are looked for, in points: more tells nothing, and takes long. */
const SIDES = [1_600, 800];

interface Detector {
	detect(picture: ImageBitmap): Promise<{ rawValue: string }[]>;
}
declare const BarcodeDetector: (new (options: { formats: string[] }) => Detector) | undefined;
const FORMATS = ['code_39', 'code_128', 'data_matrix', 'qr_code', 'pdf417'];

/** The device's own reader, where it has one. */
async function byDevice(picture: ImageBitmap): Promise<string[]> {
	if (typeof BarcodeDetector === 'undefined') return [];
	try {
		return (await new BarcodeDetector({ formats: FORMATS }).detect(picture)).map(({ rawValue }) => rawValue);
	} catch {
		return [];
	}
}

/** As shades of grey, no larger than a side. Null where this browser cannot draw. */
function greyOf(picture: ImageBitmap, side: number) {
	const scale = Math.min(1, side / Math.max(picture.width, picture.height));
	const [width, height] = [Math.round(picture.width * scale), Math.round(picture.height * scale)];
	const pen = new OffscreenCanvas(width, height).getContext('2d');
	if (!pen) return null;
	pen.drawImage(picture, 0, 0, width, height);
	const { data } = pen.getImageData(0, 0, width, height);
	const grey = new Uint8ClampedArray(width * height);
	for (let at = 0; at < grey.length; at++) {
		const from = at * 4;
		// Luma of ITU-R BT.601.
		grey[at] = 0.299 * (data[from] ?? 0) + 0.587 * (data[from + 1] ?? 0) + 0.114 * (data[from + 2] ?? 0);
	}
	return { grey, width, height };
}

/**
 * What printed codes in a photo say: by the device's own reader, else by ours.
 *
 * @param isWanted whether one of them will do: then nobody looks further
 * @returns all that was read; throws where the file is no picture
 */
export async function printedCodes(photo: Blob, isWanted: (text: string) => boolean): Promise<string[]> {
	const picture = await createImageBitmap(photo);
	const found = await byDevice(picture);
	if (found.some(isWanted)) return found;
	const { wrap } = await import('comlink');
	const worker = new Worker(new URL('../workers/codeReader.worker.ts', import.meta.url), {
		type: 'module'
	});
	const reader = wrap<CodeReader>(worker);
	try {
		for (const side of SIDES) {
			const grey = greyOf(picture, side);
			if (grey) found.push(...(await reader.read(grey)));
			if (found.some(isWanted)) break;
		}
	} finally {
		worker.terminate();
		picture.close();
	}
	return found;
}
