import { SharedStream, type TabSays, type Wish } from './streamShare';

/** Holds the one stream of events of this browser and hands what comes to the tabs that wish it. */

/** A tab that has not been heard of for so long has been closed; hidden ones speak once a minute. */
const GONE_MS = 200_000;

const tabs = new Map<MessagePort, { wishes: Wish[]; heardMs: number }>();
const stream = new SharedStream((news) => {
	for (const [port, { wishes }] of tabs)
		if (
			wishes.some(({ caseId, live }) => caseId === news.caseId && (news.name !== 'rows' || live !== 'none'))
		)
			port.postMessage(news);
});
const follow = () => stream.follow([...tabs.values()].flatMap(({ wishes }) => wishes));

addEventListener('connect', (event) => {
	const [port] = (event as MessageEvent).ports;
	if (!port) return;
	port.addEventListener('message', ({ data }: MessageEvent<TabSays>) => {
		if (data.say === 'bye') tabs.delete(port);
		else
			tabs.set(port, {
				wishes: data.say === 'wishes' ? data.wishes : (tabs.get(port)?.wishes ?? []),
				heardMs: Date.now()
			});
		if (data.say !== 'here') follow();
		if (data.say === 'wishes' && data.anew)
			for (const news of stream.standing(data.anew)) port.postMessage(news);
	});
	port.start();
});

setInterval(() => {
	for (const [port, { heardMs }] of tabs) if (Date.now() - heardMs > GONE_MS) tabs.delete(port);
	follow();
}, GONE_MS);
