import { createHash } from 'node:crypto';
import { DatabaseTrouble } from '../db/health';
import type { ObjectStore } from '../../objects/objectStore';

/** A large piece as its row has it: inside, or under the name it has elsewhere. */
export interface Shelved {
	bytes: Buffer;
	/** Name in the object store, which is the hash of what lies there; null = it lies in the row. */
	stored: string | null;
}

const nameOf = (bytes: Uint8Array): string => {
	const hash = createHash('sha256').update(bytes).digest('hex');
	return `${hash.slice(0, 2)}/${hash}`;
};

/**
 * Samples and photos are kept in their rows, so that a shop is one file, or in an object store where the shop has outgrown that.
 * There each lies under the hash of its bytes: it is laid down before its row, can be laid down again, and is checked whenever it
 * is taken out. Nothing is taken away there; what no row names any more does no harm.
 */
export class Shelf {
	/** @param store null = everything lies in its row */
	constructor(private readonly store: ObjectStore | null = null) {}

	async lay(bytes: Uint8Array): Promise<Shelved> {
		if (!this.store) return { bytes: Buffer.from(bytes), stored: null };
		const stored = nameOf(bytes);
		try {
			await this.store.put(stored, bytes);
		} catch (error) {
			throw new DatabaseTrouble('no-store', error);
		}
		return { bytes: Buffer.alloc(0), stored };
	}

	layAll(pieces: readonly Uint8Array[]): Promise<Shelved[]> {
		return Promise.all(pieces.map((piece) => this.lay(piece)));
	}

	/** Throws where it is not there or not as it was laid down: evidence is whole or it is none. */
	async take({ bytes, stored }: Shelved): Promise<Uint8Array> {
		if (stored === null) return bytes;
		if (!this.store) throw new DatabaseTrouble('no-store');
		const found = await this.store.get(stored).catch((error: unknown) => {
			throw new DatabaseTrouble('no-store', error);
		});
		if (!found) throw new Error(`the object store has nothing under ${stored}`);
		if (nameOf(found) !== stored) throw new Error(`what the object store has under ${stored} was changed`);
		return found;
	}
}
