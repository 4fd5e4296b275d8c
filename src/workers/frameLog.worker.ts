import { expose, transfer } from 'comlink';
import { LogKeeper } from '../lib/case/codes/logKeeper';
import type { PayloadOf } from '../lib/case/entries/entry';
import { keptLog, NoFrameLog, readLog } from '../lib/case/codes/frameLogReading';

/** Reads a frame log away from the page's own thread. */
const worker = {
	/** The log as an entry keeps it with the log itself, packed; or a sentence about why it is none. */
	async read(
		file: File,
		onProgress: (share: number) => void
	): Promise<
		| { ok: true; value: PayloadOf<'frame-log'>; packed: Uint8Array<ArrayBuffer> | null }
		| { ok: false; error: string }
	> {
		const zipped = file.name.endsWith('.gz');
		let passed = 0;
		const counted = file.stream().pipeThrough(
			new TransformStream<Uint8Array<ArrayBuffer>, Uint8Array<ArrayBuffer>>({
				transform(piece, out) {
					passed += piece.length;
					onProgress(passed / file.size);
					out.enqueue(piece);
				}
			})
		);
		try {
			const stream = zipped ? counted.pipeThrough(new DecompressionStream('gzip')) : counted;
			const keeper = new LogKeeper();
			const analysis = await readLog(keeper.through(piecesOf(stream)));
			const whole = keeper.end();
			const value = keptLog(analysis, file.name, file.size);
			if (!whole) return { ok: true, value, packed: null };
			const { packed, ...kept } = whole;
			return transfer({ ok: true, value: { ...value, kept }, packed }, [packed.buffer]);
		} catch (error) {
			if (error instanceof NoFrameLog) return { ok: false, error: error.message };
			return {
				ok: false,
				error: zipped ? 'Its compression is damaged.' : 'It could not be read from the disk.'
			};
		}
	}
};
export type FrameLogWorker = typeof worker;
expose(worker);

async function* piecesOf(stream: ReadableStream<Uint8Array<ArrayBuffer>>): AsyncGenerator<Uint8Array> {
	const reader = stream.getReader();
	for (;;) {
		const { done, value } = await reader.read();
		if (done) return;
		yield value;
	}
}
