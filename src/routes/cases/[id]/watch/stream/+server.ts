import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

const HEARTBEAT_MS = 15_000;
const LOOK_AGAIN_MS = 300;

/**
 * Readings of the running recording as server-sent events (`rows`): the last minutes at once, then as they come. Waits
 * for a recording where none runs yet, and for the next when one has ended.
 */
export async function GET({ params, request }) {
	await caseRowHere(params.id);
	const { desk } = services();
	const encoder = new TextEncoder();
	let stop = () => {};
	const stream = new ReadableStream<Uint8Array>({
		start(controller) {
			const say = (text: string) => controller.enqueue(encoder.encode(text));
			let following: string | null = null;
			let unwatch: (() => void) | null = null;
			const look = () => {
				const status = desk.status(params.id);
				const running = status?.kind === 'record' && status.state === 'running' ? status.id : null;
				if (running === following && (running === null || unwatch)) return;
				unwatch?.();
				unwatch = null;
				following = running;
				if (running) {
					unwatch = desk.watchLive(params.id, (batch) =>
						say(`event: rows\ndata: ${JSON.stringify(batch)}\n\n`)
					);
				}
			};
			const looking = setInterval(look, LOOK_AGAIN_MS);
			const beat = setInterval(() => say(': still here\n\n'), HEARTBEAT_MS);
			stop = () => {
				clearInterval(looking);
				clearInterval(beat);
				unwatch?.();
				unwatch = null;
			};
			request.signal.addEventListener('abort', () => stop());
			say(': here\n\n');
			look();
		},
		cancel: () => stop()
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
