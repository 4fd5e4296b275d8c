import { caseRowHere } from '$lib/server/cases/access';
import { services } from '$lib/server/running';

const HEARTBEAT_MS = 15_000;
const LOOK_AGAIN_MS = 300;

/** Whoever only looks needs no more than this of what was. */
const LOOKED_AT_S = 120;

/**
 * Readings of the running recording as server-sent events (`rows`): what was, then as they come. Waits for a recording
 * where none runs yet, and for the next when one has ended. The last two minutes, or with `?whole` all of it; whoever
 * reconnects is told only what was missed.
 */
export async function GET({ params, request, url }) {
	await caseRowHere(params.id);
	const whole = url.searchParams.has('whole');
	/** Recording and second up to which a reconnecting page has been told. */
	const [knownId, knownS] = (request.headers.get('last-event-id') ?? '').split(' ');
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
				if (!running) return;
				const recentS = whole ? -1 : (desk.recordedS(params.id) ?? 0) - LOOKED_AT_S;
				const afterS = knownId === running ? Number(knownS) : recentS;
				unwatch = desk.watchLive(
					params.id,
					(batch) => {
						const lastS = batch.rows.at(-1)?.[0] ?? afterS;
						say(`id: ${batch.id} ${lastS}\nevent: rows\ndata: ${JSON.stringify(batch)}\n\n`);
					},
					afterS
				);
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
