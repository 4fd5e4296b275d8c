import type { S3Client } from '@aws-sdk/client-s3';
import type { BucketPlace, ObjectStore } from './objectStore';

const TRIES = 3;

/**
 * Objects in a bucket, by the usual client of the protocol: credentials and region come from its usual environment
 * (`AWS_ACCESS_KEY_ID`, `AWS_SECRET_ACCESS_KEY`, `AWS_REGION`). It is loaded with the first object.
 */
export function s3Store({ bucket, prefix, endpoint }: BucketPlace): ObjectStore {
	let made: Promise<{ client: S3Client; sdk: typeof import('@aws-sdk/client-s3') }> | null = null;
	const connected = () =>
		(made ??= import('@aws-sdk/client-s3').then((sdk) => ({
			sdk,
			client: new sdk.S3Client({
				maxAttempts: TRIES,
				// A store of one's own answers under its address, not under one name for each bucket.
				...(endpoint ? { endpoint, forcePathStyle: true, region: process.env.AWS_REGION ?? 'own' } : {})
			})
		})));

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

/** The store that a server is told of; null = it keeps everything in its database. */
export const objectsOf = ({ objects }: { objects?: BucketPlace | undefined }): ObjectStore | null =>
	objects ? s3Store(objects) : null;
