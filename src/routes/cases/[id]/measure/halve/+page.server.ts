import { exposedAt } from '$lib/case/measure/measured';
import { ofKind } from '$lib/case/thread/thread';
import { benchPage } from '$lib/server/cases/benchPage';
import { nodeOf, wheelReaderOf, wirePath } from '../../../../../../library/measurePoints';

export const load = async (event) => {
	const { view, type, shared, cautions } = await benchPage(event);
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
		cautions: cautions.words(['connector-open', 'live-probed', 'restraint-near']),
		searches: ofKind(view.entries, 'harness-search')
			.filter(({ payload }) => payload.position === at)
			.map(({ id, payload }) => ({ id, ...payload }))
	};
};
