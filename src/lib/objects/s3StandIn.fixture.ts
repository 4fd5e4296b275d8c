import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { buffer } from 'node:stream/consumers';

export interface S3StandIn {
	/** What is kept, by `/bucket/name`. */
	objects: Map<string, Buffer>;
	endpoint: string;
	/** How many pieces of larger files have come. */
	parts: number;
	close(): void;
}

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');

/**
 * Stands in for a store that speaks the S3 protocol: it keeps what it is given by whoever signs with the key that it knows, whole
 * or in pieces, lists it and takes it away. Sets that key for the client.
 */
export async function startS3StandIn(): Promise<S3StandIn> {
	const objects = new Map<string, Buffer>();
	const pieces = new Map<string, Buffer>();
	const store: S3StandIn = { objects, endpoint: '', parts: 0, close: () => undefined };
	const server = createServer((request, response) => {
		const { method = '', url = '', headers } = request;
		const { pathname, searchParams: asked } = new URL(url, 'http://store');
		const name = decodeURIComponent(pathname);
		const signed = /^AWS4-HMAC-SHA256 Credential=known\//.test(headers.authorization ?? '');
		const xml = (text: string) => response.writeHead(200, { 'content-type': 'application/xml' }).end(text);
		const taken = () => response.writeHead(200, { etag: '"1"' }).end();
		void buffer(request).then((body) => {
			const nth = asked.get('partNumber');
			if (!signed) response.writeHead(403).end();
			else if (method === 'PUT' && nth !== null) {
				pieces.set(`${name}#${nth.padStart(5, '0')}`, body);
				store.parts++;
				taken();
			} else if (method === 'PUT') {
				objects.set(name, body);
				taken();
			} else if (method === 'POST' && asked.has('uploads'))
				xml(`<InitiateMultipartUploadResult><UploadId>one</UploadId></InitiateMultipartUploadResult>`);
			else if (method === 'POST') {
				const own = [...pieces.keys()].filter((key) => key.startsWith(`${name}#`)).sort();
				objects.set(name, Buffer.concat(own.map((key) => pieces.get(key) ?? Buffer.alloc(0))));
				own.forEach((key) => pieces.delete(key));
				xml(`<CompleteMultipartUploadResult><ETag>"1"</ETag></CompleteMultipartUploadResult>`);
			} else if (method === 'DELETE') {
				objects.delete(name);
				response.writeHead(204).end();
			} else if (asked.has('list-type')) {
				const bucket = `${name.replace(/\/$/, '')}/`;
				const own = [...objects.keys()].filter((key) => key.startsWith(bucket + (asked.get('prefix') ?? '')));
				const listed = own.map(
					(key) => `<Contents><Key>${escaped(key.slice(bucket.length))}</Key></Contents>`
				);
				xml(`<ListBucketResult><IsTruncated>false</IsTruncated>${listed.join('')}</ListBucketResult>`);
			} else if (objects.has(name)) response.writeHead(200).end(objects.get(name));
			else response.writeHead(404).end('<Error><Code>NoSuchKey</Code><Message>none</Message></Error>');
		});
	});
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
	store.endpoint = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
	process.env.AWS_ACCESS_KEY_ID = 'known';
	process.env.AWS_SECRET_ACCESS_KEY = 'secret';
	store.close = () => {
		server.closeAllConnections();
		server.close();
		delete process.env.AWS_ACCESS_KEY_ID;
		delete process.env.AWS_SECRET_ACCESS_KEY;
	};
	return store;
}
