/** A place for large pieces outside the database, by name. */
export interface ObjectStore {
	put(name: string, bytes: Uint8Array): Promise<void>;
	/** Null where nothing is kept under the name. */
	get(name: string): Promise<Uint8Array | null>;
}

/** Where objects are kept: a bucket of a store that speaks the S3 protocol. */
export interface BucketPlace {
	bucket: string;
	/** Before every name; empty or ending with a slash. */
	prefix: string;
	/** Address of the store; absent = as the usual environment of its client says. */
	endpoint?: string | undefined;
}

/** Reads `s3://bucket/prefix`. Throws with a sentence where it is none. */
export function bucketPlace(url: string, endpoint?: string): BucketPlace {
	const parts = /^s3:\/\/([a-z0-9][a-z0-9.-]{1,61}[a-z0-9])(?:\/([\w./-]*))?$/.exec(url);
	if (!parts?.[1]) throw new Error('JALDI_BLOBS must be s3://bucket or s3://bucket/prefix.');
	const prefix = parts[2] ?? '';
	return { bucket: parts[1], prefix: prefix && !prefix.endsWith('/') ? `${prefix}/` : prefix, endpoint };
}
