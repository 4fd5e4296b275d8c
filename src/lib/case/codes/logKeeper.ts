import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { Gzip } from 'fflate';
import { MOST_KEPT_LOG_BYTES } from '../thread/keptLimits';

/** Packs a log on its way to whoever reads it, so that it can be kept; gives up where it grows too large for that. */
export class LogKeeper {
	private readonly hash = sha256.create();
	private readonly pieces: Uint8Array[] = [];
	private readonly gzip = new Gzip((piece) => this.pieces.push(piece));
	private bytes = 0;

	/** @param most bytes, unpacked, up to which it is kept */
	constructor(private readonly most = MOST_KEPT_LOG_BYTES) {}

	/** The same pieces, unchanged. */
	async *through(log: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
		for await (const piece of log) {
			this.bytes += piece.length;
			if (this.bytes <= this.most) {
				this.hash.update(piece);
				this.gzip.push(piece);
			} else this.pieces.length = 0;
			yield piece;
		}
	}

	/** What is kept; null where it was too large. Call once, after the last piece. */
	end(): { sha256: string; bytes: number; packed: Uint8Array<ArrayBuffer> } | null {
		if (this.bytes > this.most) return null;
		this.gzip.push(new Uint8Array(0), true);
		const packed = new Uint8Array(this.pieces.reduce((sum, { length }) => sum + length, 0));
		let at = 0;
		for (const piece of this.pieces) {
			packed.set(piece, at);
			at += piece.length;
		}
		return { sha256: bytesToHex(this.hash.digest()), bytes: this.bytes, packed };
	}
}
