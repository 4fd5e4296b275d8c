import { error } from '@sveltejs/kit';
import { explainScanExchange } from '$lib/case/codes/logExchange';
import { caseHere } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { thread } = await caseHere({ params, locals });
	const entry = thread.find((e) => e.id === params.entry);
	const module =
		entry?.kind === 'network-scan'
			? entry.payload.modules.find((m) => m.address === params.address)
			: undefined;
	if (!entry || !module) error(404, 'There is no such reading on this case.');
	return {
		name: module.name,
		address: module.address,
		time: clock(entry.observedAt),
		exchanges: module.exchanges.map((exchange, i) => explainScanExchange(exchange, i + 1))
	};
};
