import { exposedAt } from '$lib/case/measure/measured';
import { ofKind } from '$lib/case/thread/thread';
import { benchPage } from '$lib/server/cases/benchPage';
import { clock } from '$lib/server/cases/clock';
import { wheelSignal } from '../../../../../../library/liveSignals';
import { nodeOf, wheelReaderOf, wirePath } from '../../../../../../library/measurePoints';

export const load = async (event) => {
	const { row, view, type, shared, cautions } = await benchPage(event);
	const { at, mate } = shared;
	return {
		...shared,
		reader: type ? (wheelReaderOf(type)?.role ?? null) : null,
		paths: { feed: type ? wirePath(type, at, 'feed') : [], signal: type ? wirePath(type, at, 'signal') : [] },
		nodes: type && {
			feed: nodeOf(type, at, 'wire:feed'),
			signal: nodeOf(type, at, 'wire:signal'),
			mateFeed: nodeOf(type, mate, 'wire:feed')
		},
		exposed: [...exposedAt(view.entries, at)],
		linkAddress: row.vehicle.linkAddress,
		signal: type && wheelSignal(type, at),
		cautions: cautions.words(['connector-open', 'live-probed', 'restraint-near']),
		wiggleCautions: cautions.words(['hands-near-wheel']),
		wiggled: ofKind(view.entries, 'live-recording')
			.filter(({ payload }) => payload.purpose?.what === 'wiggle' && payload.purpose.position === at)
			.map(({ id, observedAt, payload }) => ({
				id,
				time: clock(observedAt),
				marks: payload.marks,
				findings: payload.findings.map(({ startS, endS, text }) => ({ startS, endS, text }))
			}))
			.at(-1),
		searches: ofKind(view.entries, 'harness-search')
			.filter(({ payload }) => payload.position === at)
			.map(({ id, payload }) => ({ id, ...payload }))
	};
};
