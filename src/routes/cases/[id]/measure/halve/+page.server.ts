import { typeOf } from '$lib/case/codes';
import { exposedAt, mateOf } from '$lib/case/measured';
import { ofKind } from '$lib/case/thread';
import { positionWords } from '$lib/case/words';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { cornersOf } from '$lib/server/cases/corners';
import { liveSignals } from '../../../../../../library/liveSignals';
import { cautionText } from '../../../../../../library/measure';
import { nodeOf, wheelReaderOf, wirePath } from '../../../../../../library/measurePoints';

export const load = async ({ params, url, depends }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const type = typeOf(view.entries);
	const corners = cornersOf(view, url.searchParams.get('at'));
	const { at } = corners;
	const mate = mateOf(at);
	return {
		...corners,
		mate,
		mateWords: positionWords(mate),
		reader: type ? (wheelReaderOf(type)?.role ?? null) : null,
		paths: { feed: type ? wirePath(type, at, 'feed') : [], signal: type ? wirePath(type, at, 'signal') : [] },
		nodes: type && {
			feed: nodeOf(type, at, 'wire:feed'),
			signal: nodeOf(type, at, 'wire:signal'),
			mateFeed: nodeOf(type, mate, 'wire:feed')
		},
		exposed: [...exposedAt(view.entries, at)],
		standIn: row.vehicle.standInAddress !== null,
		linkAddress: row.vehicle.linkAddress,
		signal:
			(type ? liveSignals(type) : []).find(({ signal }) => signal === at.replace('-', '_'))?.signal ?? null,
		cautions: ['key-off', 'back-probe', 'restraint'].map(cautionText),
		wiggled: ofKind(view.entries, 'live-recording')
			.filter(({ payload }) => payload.name.startsWith('Wiggle') && payload.name.includes(corners.atWords))
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
