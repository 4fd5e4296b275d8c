// Lists the pages that this device keeps, and opens the one that was wanted as soon as the server answers.
const AGAIN_MS = 5_000;
const titleOf = (html) => {
	const title = new DOMParser().parseFromString(html, 'text/html').title;
	return title.replace(/ · Jaldi$/, '') || null;
};

async function list() {
	const pages = await caches.open('jaldi:pages');
	const kept = [];
	for (const request of await pages.keys())
		kept.push({ request, title: titleOf(await (await pages.match(request)).text()) });
	document.getElementById('none').hidden = kept.length > 0;
	// The shop's own pages stand before those of cases, whose titles begin with a number.
	const isCase = ({ request }) => new URL(request.url).pathname.startsWith('/cases/');
	kept.sort((a, b) => isCase(a) - isCase(b) || (a.title ?? '').localeCompare(b.title ?? ''));
	for (const { request, title } of kept) {
		const link = document.createElement('a');
		link.href = request.url;
		link.textContent = title ?? new URL(request.url).pathname;
		const item = document.createElement('li');
		item.append(link);
		document.getElementById('kept').append(item);
	}
}

setInterval(async () => {
	const answered = await fetch('/healthz').then(
		({ ok }) => ok,
		() => false
	);
	if (answered) location.reload();
}, AGAIN_MS);
void list();
