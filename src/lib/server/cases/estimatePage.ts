import { agreementOf } from '../../case/progress/agreed';
import { estimateStart } from '../../case/mend/estimateStart';
import { latest } from '../../case/thread/thread';
import { digitsOf } from '../../core/money/money';
import type { Services } from '../services';
import { clock } from './clock';
import type { LoadedCase } from './loadedCase';

/** What the work is to cost: what the customer was told and said, and what a further estimate begins with. */
export async function estimatePage(
	services: Services,
	{ row, view }: LoadedCase,
	asked: { kind: string | null; place: string | null },
	/** Whoever looks may make estimates: the ways to mend are reasoned about. */
	mayMake: boolean
) {
	const planned = latest(view.entries, 'repair-planned')?.payload ?? null;
	// What nobody has chosen is asked of nobody: a suspicion is no price.
	const of =
		asked.kind !== null && asked.place !== null
			? { kind: asked.kind, place: asked.place }
			: planned && { kind: planned.repair, place: planned.place };
	const [terms, customer, plan] = await Promise.all([
		services.settings.read('terms'),
		customerOf(services, view),
		mayMake && of ? services.thinking.ask('planPage', { caseId: row.id, ...of, harsh: true }) : null
	]);
	const way = plan?.ways?.find(({ kind, place }) => kind === of?.kind && place === of.place) ?? null;
	const agreement = agreementOf(view.entries);
	return {
		terms,
		customer,
		agreement: {
			...agreement,
			estimate: agreement.estimate && { ...agreement.estimate, at: clock(agreement.estimate.at) },
			answer: agreement.answer && { ...agreement.answer, at: clock(agreement.answer.at) }
		},
		start: terms ? estimateStart(view.entries, way, digitsOf(terms.currency)) : []
	};
}

/** Who brought the vehicle in, as far as they are still known. */
async function customerOf({ customers }: Services, { entries }: LoadedCase['view']) {
	const id = latest(entries, 'customer')?.payload.customer ?? null;
	const known = id === null ? null : await customers.find(id);
	return known && { id: known.id, name: known.name, phone: known.phone, consent: known.consent };
}
