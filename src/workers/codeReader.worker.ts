import {
	BarcodeFormat,
	BinaryBitmap,
	DecodeHintType,
	HybridBinarizer,
	MultiFormatReader,
	RGBLuminanceSource
} from '@zxing/library';
import { expose } from 'comlink';

/** Codes in which makers print a vehicle's number. */
const FORMATS = [
	BarcodeFormat.CODE_39,
	BarcodeFormat.CODE_128,
	BarcodeFormat.DATA_MATRIX,
	BarcodeFormat.QR_CODE,
	BarcodeFormat.PDF_417
];

/** A picture in shades of grey, a byte a point. */
export interface GreyPicture {
	grey: Uint8ClampedArray<ArrayBuffer>;
	width: number;
	height: number;
}

/** The same, lying on its side. */
function turned({ grey, width, height }: GreyPicture): GreyPicture {
	const other = new Uint8ClampedArray(grey.length);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) other[x * height + (height - 1 - y)] = grey[y * width + x] ?? 0;
	return { grey: other, width: height, height: width };
}

/** Reads printed codes away from the page's own thread. */
const worker = {
	/** What the codes in a picture say: each format by itself, upright and lying; empty where none is seen. */
	read(picture: GreyPicture): string[] {
		const found = new Set<string>();
		for (const one of [picture, turned(picture)])
			for (const format of FORMATS) {
				const reader = new MultiFormatReader();
				reader.setHints(
					new Map<DecodeHintType, unknown>([
						[DecodeHintType.POSSIBLE_FORMATS, [format]],
						[DecodeHintType.TRY_HARDER, true]
					])
				);
				try {
					const source = new RGBLuminanceSource(one.grey, one.width, one.height);
					found.add(reader.decode(new BinaryBitmap(new HybridBinarizer(source))).getText());
				} catch {
					// It says that it has found nothing.
				}
			}
		return [...found];
	}
};
export type CodeReader = typeof worker;
expose(worker);
