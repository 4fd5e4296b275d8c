import { handsOn } from '$lib/case/measure/handsOn';
import { lastMending } from '$lib/case/progress/provingStep';
import { comesOf } from '$lib/case/proof/comesAndGoes';
import { triesAt } from '$lib/case/proof/provocations';
import { USUAL_TARGET } from '$lib/core/prove/exposure';
import { furtherSeconds, strongest } from '$lib/core/prove/provoked';
import { decodeStatus } from '$lib/core/codes/status';
import { undisturbed } from '$lib/case/thread/inTheWay';
import { positionWords } from '$lib/case/words';
import { benchPage } from '$lib/server/cases/benchPage';
import { wheelSignal } from '../../../../../../library/liveSignals';
import { wirePath } from '../../../../../../library/measurePoints';
import { orLater } from '../../../../later';

export const load = async (event) => {
	const { row, view, type, wheel, shared, cautions } = await benchPage(event);
	const { at } = shared;
	const { thinking } = event.locals.services;
	const counting = undisturbed(view.entries);
	const tries = triesAt(counting, at);
	const before = tries.filter((one) => one.before.changes > 0);
	const comes = view.codes.map((code) => comesOf(counting, code, view.codes));
	const target = comes.find((one) => one !== null)?.target ?? USUAL_TARGET;
	const mended = lastMending(view.entries) !== null;
	return {
		...shared,
		linkAddress: row.vehicle.linkAddress,
		signal: type && wheelSignal(type, at),
		hands: handsOn(type ? wirePath(type, at, 'signal') : [], wheel?.steered ?? false),
		/** Wheels that the engine turns, where this is one of them. */
		inGear: wheel?.driven
			? (type?.wheels ?? []).flatMap(({ position, driven }) => {
					const signal = type && driven ? wheelSignal(type, position) : null;
					return signal ? [{ signal, words: positionWords(position), here: position === at }] : [];
				})
			: [],
		codes: view.codes
			.filter(({ corner, madeByUs }) => corner === at && madeByUs === null)
			.map((code) => ({
				text: code.text,
				failsNow: decodeStatus(code.status).testFailed,
				comesAndGoes: comesOf(counting, code, view.codes) !== null
			})),
		tries: tries.map(({ key, words, does, before: was, since }) => ({
			key,
			words,
			does,
			before: was,
			since
		})),
		mended,
		/** What has to be done again before it is proven, and for how long. */
		again: mended && before.length > 0 ? againOf(before, target) : null,
		cautions: cautions.words(['hands-near-wheel', 'corner-touched']),
		gearCautions: cautions.words(['wheel-turns']),
		ways: await orLater(
			`${event.params.id} ${at}`,
			thinking.ask('provokePage', { caseId: event.params.id, position: at })
		)
	};
};

function againOf(before: ReturnType<typeof triesAt>, target: number) {
	const first = strongest(before);
	const key = before.find((one) => one === first)?.key ?? '';
	return {
		key,
		words: first?.words ?? '',
		furtherS: furtherSeconds(before, target),
		changedAgain: before.some(({ since }) => since.changes > 0)
	};
}
