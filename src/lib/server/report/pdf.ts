import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import regular from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff?inline';
import bold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff?inline';
import moreRegular from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-400-normal.woff?inline';
import moreBold from '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-700-normal.woff?inline';

/** Missing in its types. */
const { virtualfs } = pdfmake as unknown as {
	virtualfs: { writeFileSync: (name: string, bytes: Uint8Array) => void };
};
const FILES = { regular, bold, moreRegular, moreBold };
let ready = false;

/** Fonts come from the app itself; nothing else is read from anywhere. */
function prepare(): void {
	if (ready) return;
	for (const [name, dataUrl] of Object.entries(FILES))
		virtualfs.writeFileSync(`${name}.woff`, Buffer.from(dataUrl.split(',')[1] ?? '', 'base64'));
	pdfmake.setFonts({
		Next: { normal: 'regular.woff', bold: 'bold.woff' },
		NextMore: { normal: 'moreRegular.woff', bold: 'moreBold.woff' }
	});
	pdfmake.setUrlAccessPolicy(() => false);
	pdfmake.setLocalAccessPolicy(() => false);
	ready = true;
}

export async function pdfOf(document: TDocumentDefinitions): Promise<Uint8Array> {
	prepare();
	return new Uint8Array(await pdfmake.createPdf(document).getBuffer());
}

/** Reads the fonts before anybody waits for a paper. */
export async function warmUp(): Promise<void> {
	await pdfOf({ content: [{ text: 'Jaldi', font: 'Next' }], defaultStyle: { font: 'Next' } });
}
