/** A place for large pieces outside the database, by name. */
export interface ObjectStore {
	put(name: string, bytes: Uint8Array): Promise<void>;
	/** Null where nothing is kept under the name. */
	get(name: string): Promise<Uint8Array | null>;
}

/** A place elsewhere for whole files, of any size, by name. One is there when all of it is. */
export interface FileStore {
	names(): Promise<string[]>;
	/** Copies a file of this machine there. */
	bring(name: string, file: string): Promise<void>;
	/** Copies one to a file of this machine. Rejects where there is none of that name. */
	fetch(name: string, file: string): Promise<void>;
	remove(name: string): Promise<void>;
}

/** Where objects are kept: a bucket of a store that speaks the S3 protocol. */
export interface BucketPlace {
	bucket: string;
	/** Before every name; empty or ending with a slash. */
	prefix: string;
	/** Address of the store; absent = as the usual environment of its client says. */
	endpoint?: string | undefined;
}

const SCHEME = 's3://';
export const namesBucket = (place: string): boolean => place.startsWith(SCHEME);

/**
 * Reads `s3://bucket/prefix`. Throws with a sentence where it is none.
 *
 * @param what the variable or the argument that it was given in
 */
export function bucketPlace(url: string, endpoint: string | undefined, what: string): BucketPlace {
	const parts = /^s3:\/\/([a-z0-9][a-z0-9.-]{1,61}[a-z0-9])(?:\/([\w./-]*))?$/.exec(url);
	if (!parts?.[1]) throw new Error(`${what} must be s3://bucket or s3://bucket/prefix.`);
	const prefix = parts[2] ?? '';
	return { bucket: parts[1], prefix: prefix && !prefix.endsWith('/') ? `${prefix}/` : prefix, endpoint };
}

const HERE = new Set(['localhost', '127.0.0.1', '[::1]']);

/** An address that what a shop knows may be sent to. Throws for one that anybody on the way could read. */
export function guarded(name: string, address: string): string {
	const isOpen = /^(?:http|ws):/i.test(address);
	if (isOpen && !(URL.canParse(address) && HERE.has(new URL(address).hostname)))
		throw new Error(
			`${name} must be https: (or libsql:): what goes there is read by whoever stands between.`
		);
	return address;
}
