import { error } from '@sveltejs/kit';
import { explainLogExchange } from '$lib/case/codes/logExchange';
import { caseHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

const PAGE = 40;

export const load = async ({ params, url, depends, locals }) => {
	depends('jaldi:case');
	const { thread } = await caseHere({ params, locals });
	const entry = thread.find((e) => e.id === params.entry);
	if (entry?.kind !== 'frame-log') error(404, 'There is no such log on this case.');
	const { fileName, frames, durationS, exchanges, exchangeCount, problems, badLines, kept } = entry.payload;
	const pages = Math.max(1, Math.ceil(exchanges.length / PAGE));
	const page = Math.min(pages, Math.max(1, Number(url.searchParams.get('page')) || 1));
	return {
		log: { fileName, frames, durationS, exchangeCount, kept: exchanges.length, problems, badLines },
		file: kept ? `/cases/${params.id}/read/log/${entry.id}/file` : null,
		time: clock(entry.observedAt),
		page,
		pages,
		exchanges: exchanges.slice((page - 1) * PAGE, page * PAGE).map(explainLogExchange)
	};
};
