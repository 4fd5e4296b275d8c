import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

/** Keeps proxies and browsers from giving up on a quiet line. */
const HEARTBEAT_MS = 20_000;

/**
 * Server-sent events of one case: `head` with the thread's length whenever it grows (and at once, so that whoever
 * reconnects learns what was missed), `job` with the progress of work on the vehicle.
 */
export async function GET({ params, request }) {
	await caseRowHere(params.id);
	const { threads, desk, outlooks } = services();
	const encoder = new TextEncoder();
	let stop = () => {};
	const stream = new ReadableStream<Uint8Array>({
		async start(controller) {
			const send = (event: string, data: unknown) =>
				controller.enqueue(encoder.encode(`event: ${event}\ndata: ${JSON.stringify(data)}\n\n`));
			const stopThread = threads.listen(params.id, (seq) => send('head', seq));
			const stopNext = outlooks.listen(params.id, (seq) => send('next', seq));
			const stopJob = desk.watch(params.id, (status) => send('job', status));
			const beat = setInterval(() => controller.enqueue(encoder.encode(': still here\n\n')), HEARTBEAT_MS);
			stop = () => {
				stopThread();
				stopJob();
				stopNext();
				clearInterval(beat);
			};
			request.signal.addEventListener('abort', () => stop());
			send('head', await threads.headSeq(params.id));
			// Also when there is none: whoever reconnects may be waiting for work that died with another server.
			send('job', desk.status(params.id));
		},
		cancel: () => stop()
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
