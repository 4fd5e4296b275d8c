import { MOST_BUNDLE_BYTES } from '../case/paper/bundle';
import { MOST_PACKED_LOG_BYTES } from '../case/thread/keptLimits';
import { MOST_PHOTO_BYTES } from './db/photos';

const KB = 1024;
const MB = 1024 * KB;

/** What a request may bring, by where it goes; the first that fits counts. */
const LIMITS: readonly (readonly [path: RegExp, bytes: number])[] = [
	[/^\/sign-in$/, 4 * KB],
	[/^\/page-trouble$/, 8 * KB],
	[/^\/cases\/bring$/, MOST_BUNDLE_BYTES + MB],
	[/^\/cases\/[^/]+\/measure\/photo$/, MOST_PHOTO_BYTES],
	[/^\/cases\/[^/]+\/read\/log\/[^/]+\/file$/, MOST_PACKED_LOG_BYTES],
	[/^\/cases\/[^/]+\/(watch|measure\/scope)\/import$/, 96 * MB],
	[/^\/cases\/[^/]+\/(entries|comeback)$/, 8 * MB],
	[/^\/library$/, 32 * MB]
];
/** A form, or a few words as JSON. */
const USUAL = 512 * KB;

export const mostBytes = (path: string): number => LIMITS.find(([where]) => where.test(path))?.[1] ?? USUAL;

export class BodyTooLarge extends Error {}

/** A request whose body ends with an error as soon as it is longer than it may be, whatever its head says. */
export function limited(request: Request, most: number): Request {
	if (!request.body) return request;
	let seen = 0;
	const counted = request.body.pipeThrough(
		new TransformStream<Uint8Array, Uint8Array>({
			transform(chunk, controller) {
				seen += chunk.length;
				if (seen > most) controller.error(new BodyTooLarge());
				else controller.enqueue(chunk);
			}
		})
	);
	return new Request(request, { body: counted, duplex: 'half' } as RequestInit);
}

/** A size as people say it. */
export const sizeWords = (bytes: number): string =>
	bytes < MB ? `${Math.round(bytes / KB)} kB` : `${Math.round(bytes / MB)} MB`;
