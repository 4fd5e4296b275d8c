import { SharedStream, type StreamNews, type TabSays, type Wish } from '../workers/streamShare';

/**
 * News of cases for this tab. All tabs of a browser share one stream, held by a shared worker; where there is none, each tab has
 * its own while it is looked at.
 */

type Listener = (news: StreamNews) => void;
const HERE_EVERY_MS = 60_000;

const wanted = new Map<Listener, Wish>();
let say: ((message: TabSays) => void) | null = null;

function hear(news: StreamNews): void {
	for (const [listener, { caseId, live }] of wanted)
		if (caseId === news.caseId && (news.name !== 'rows' || live !== 'none')) listener(news);
}

function connect(): (message: TabSays) => void {
	if (typeof SharedWorker === 'undefined') return alone();
	const worker = new SharedWorker(new URL('../workers/stream.worker.ts', import.meta.url), {
		type: 'module',
		name: 'jaldi-stream'
	});
	worker.port.addEventListener('message', ({ data }: MessageEvent<StreamNews>) => hear(data));
	worker.port.start();
	const tell = (message: TabSays) => worker.port.postMessage(message);
	setInterval(() => tell({ say: 'here' }), HERE_EVERY_MS);
	addEventListener('pagehide', () => tell({ say: 'bye' }));
	// A page that comes back out of the browser's keeping says again what it wishes.
	addEventListener('pageshow', ({ persisted }) => persisted && tell(wishes()));
	return tell;
}

function alone(): (message: TabSays) => void {
	const stream = new SharedStream(hear);
	const follow = () => stream.follow(document.hidden ? [] : [...wanted.values()]);
	document.addEventListener('visibilitychange', follow);
	return (message) => {
		follow();
		if (message.say === 'wishes' && message.anew) stream.standing(message.anew).forEach(hear);
	};
}

const wishes = (anew?: string): TabSays => ({ say: 'wishes', wishes: [...wanted.values()], anew });

/** Calls back with what happens on a case from now on, where it stands first. @returns how to stop */
export function followCase(wish: Wish, listener: Listener): () => void {
	say ??= connect();
	wanted.set(listener, wish);
	say(wishes(wish.caseId));
	return () => {
		wanted.delete(listener);
		say?.(wishes());
	};
}
