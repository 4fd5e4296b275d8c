import type { S3Client } from '@aws-sdk/client-s3';
import { createReadStream, createWriteStream } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { BucketPlace, FileStore, ObjectStore } from './objectStore';

const TRIES = 3;
/** Larger files go in pieces, which are sent again one by one. */
const PART_BYTES = 64 * 1024 * 1024;

type Connected = { client: S3Client; sdk: typeof import('@aws-sdk/client-s3') };

/**
 * The usual client of the protocol: credentials and region come from its usual environment (`AWS_ACCESS_KEY_ID`,
 * `AWS_SECRET_ACCESS_KEY`, `AWS_REGION`). It is loaded when it is first needed.
 */
function connection({ endpoint }: BucketPlace): () => Promise<Connected> {
	let made: Promise<Connected> | null = null;
	return () =>
		(made ??= import('@aws-sdk/client-s3').then((sdk) => ({
			sdk,
			client: new sdk.S3Client({
				maxAttempts: TRIES,
				// A store of one's own answers under its address, not under one name for each bucket.
				...(endpoint ? { endpoint, forcePathStyle: true, region: process.env.AWS_REGION ?? 'own' } : {})
			})
		})));
}

/** Objects in a bucket, each in one piece. */
export function s3Store(place: BucketPlace): ObjectStore {
	const { bucket, prefix } = place;
	const connected = connection(place);
	return {
		async put(name, bytes) {
			const { client, sdk } = await connected();
			await client.send(new sdk.PutObjectCommand({ Bucket: bucket, Key: prefix + name, Body: bytes }));
		},
		async get(name) {
			const { client, sdk } = await connected();
			try {
				const found = await client.send(new sdk.GetObjectCommand({ Bucket: bucket, Key: prefix + name }));
				return (await found.Body?.transformToByteArray()) ?? null;
			} catch (error) {
				if (error instanceof sdk.NoSuchKey) return null;
				throw error;
			}
		}
	};
}

/**
 * Files in a bucket, in pieces where they are large.
 *
 * @param partBytes how large a piece is; the protocol takes none below 5 MB but the last
 */
export function s3Files(place: BucketPlace, partBytes = PART_BYTES): FileStore {
	const { bucket: Bucket, prefix } = place;
	const connected = connection(place);
	return {
		async names() {
			const { client, sdk } = await connected();
			const names: string[] = [];
			for await (const page of sdk.paginateListObjectsV2({ client }, { Bucket, Prefix: prefix }))
				for (const { Key } of page.Contents ?? []) if (Key) names.push(Key.slice(prefix.length));
			return names;
		},
		async bring(name, file) {
			const { client } = await connected();
			const { Upload } = await import('@aws-sdk/lib-storage');
			const params = { Bucket, Key: prefix + name, Body: createReadStream(file) };
			await new Upload({ client, params, partSize: partBytes, queueSize: 1 }).done();
		},
		async fetch(name, file) {
			const { client, sdk } = await connected();
			const { Body } = await client.send(new sdk.GetObjectCommand({ Bucket, Key: prefix + name }));
			if (!(Body instanceof Readable)) throw new Error(`There is nothing in ${name}.`);
			await pipeline(Body, createWriteStream(file, { mode: 0o600 }));
		},
		async remove(name) {
			const { client, sdk } = await connected();
			await client.send(new sdk.DeleteObjectCommand({ Bucket, Key: prefix + name }));
		}
	};
}

/** The store that a server is told of; null = it keeps everything in its database. */
export const objectsOf = ({ objects }: { objects?: BucketPlace | undefined }): ObjectStore | null =>
	objects ? s3Store(objects) : null;
