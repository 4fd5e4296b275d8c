/** A browser that takes nothing any more is let go at so many messages; it comes back by itself. */
const MOST_UNREAD = 2_000;

interface StreamParts {
	heartbeatMs: number;
	/** Whether whoever listens still may; asked at each heartbeat. What fails there is asked again at the next. */
	mayListen: () => Promise<boolean>;
	/** Begins what is told. @returns what ends it; a stream that ended meanwhile ends it at once */
	begin: (say: Say, onEnd: (stop: () => void) => void) => Promise<void>;
	/** Hears how the stream is ended from elsewhere. @returns how to hear no more */
	endable: (end: () => void) => () => void;
	signal: AbortSignal;
}
export type Say = (name: string, value: unknown) => void;

/**
 * Server-sent events for one listener. However it ends (by the reader, the server, a session that is over, a request that was cut off),
 * nothing is said after the end, whatever was under way then.
 */
export function eventStream({
	heartbeatMs,
	mayListen,
	begin,
	endable,
	signal
}: StreamParts): ReadableStream<Uint8Array> {
	const encoder = new TextEncoder();
	const stops: (() => void)[] = [];
	let open = true;
	const stop = () => {
		open = false;
		for (const one of stops.splice(0)) one();
	};
	const onEnd = (one: () => void) => {
		if (open) stops.push(one);
		else one();
	};
	return new ReadableStream<Uint8Array>({
		async start(controller) {
			const end = () => {
				if (!open) return;
				stop();
				try {
					controller.close();
				} catch {
					// Its reader has gone already.
				}
			};
			const write = (text: string) => {
				if (!open) return;
				if ((controller.desiredSize ?? 0) < -MOST_UNREAD) return end();
				try {
					controller.enqueue(encoder.encode(text));
				} catch {
					stop();
				}
			};
			const beat = setInterval(() => {
				mayListen().then(
					(may) => (may ? write(': still here\n\n') : end()),
					() => undefined
				);
			}, heartbeatMs);
			onEnd(() => clearInterval(beat));
			onEnd(endable(end));
			signal.addEventListener('abort', end);
			if (signal.aborted) return end();
			write(': here\n\n');
			await begin((name, value) => write(`event: ${name}\ndata: ${JSON.stringify(value)}\n\n`), onEnd);
		},
		cancel: stop
	});
}
