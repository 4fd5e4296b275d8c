import { numberCalled, slugOfNumber } from '../../case/codes/decoderAnswer';
import { codeNumber } from '../../core/codes/codeId';
import { hasTold } from '../../case/codes/hasTold';
import { wheelsTogether } from '../../case/codes/wheelsTogether';
import { cascadeOf } from '../../case/reason/cascade';
import { percentWords } from '../../case/reason/percentWords';
import { hypothesesOf, testWords } from '../../case/reason/plan';
import { explanationsShown } from '../../case/reason/explanationView';
import { shownGrid } from '../../case/reason/gridView';
import { mendingSteps, shownTest } from '../../case/reason/reasonView';
import { workDone } from '../../case/reason/reasoning';
import { faultWords, seenWords, placeWords, STEP_WORDS } from '../../case/reason/words';
import { describeEntry } from '../../case/thread/describe';
import { ofKind } from '../../case/thread/thread';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { repairInducedBy } from '../../../../library/reason/repairInduced';
import { works } from '../../../../library/vocabulary';
import { splitKey } from '../../../../library/reason/signs';
import type { Stores } from '../stores';
import { loadCase } from './access';
import { cautionsHere, type CautionsHere } from './cautionsHere';
import { clock } from './clock';
import { learnedLines } from './learned';
import { reasonOf, type ReasonedCase } from './reason';

const MOST_OTHERS = 2;
/** What a wheel’s code says that is not about its circuit: nothing, or its ring. */
const NO_CIRCUIT = ['none', 'ring'];
/** Less suspected than this, what others left behind is not spoken of. */
const LEFT_FROM = 0.03;

/**
 * What the page of the reasoning shows; null where there is nothing to reason about.
 *
 * @param asked.upTo place on the thread to look at as it was; null = now
 */
export async function reasonPage(stores: Stores, { caseId, upTo }: { caseId: string; upTo: number | null }) {
	const reasoned = await reasonOf(stores, await loadCase(stores, caseId), upTo);
	if (!reasoned || !hasTold(reasoned.view)) return null;
	return shown(reasoned, await cautionsHere(stores, reasoned.reasoning.model.type));
}

function shown(reasoned: ReasonedCase, cautions: CautionsHere) {
	const { reasoning, proving, spoken, entries, view } = reasoned;
	const { decision, model, policy, observations } = reasoning;
	const tests = decision.ranked.flatMap((ranked) => {
		const one = shownTest(reasoning, ranked);
		return one ? [{ ...one, cautions: cautions.words(one.exposed) }] : [];
	});
	const first = decision.test && tests.find(({ id }) => id === decision.test?.test.id);
	const byId = new Map(entries.map((entry) => [entry.id, entry]));
	const titleOf = (index: number) => {
		const one = observations[index];
		const entry = one && byId.get(one.entry);
		return one && entry
			? {
					entryId: entry.id,
					title: describeEntry(entry).title,
					words: `${placeWords(splitKey(one.sign).place, model.type)}: ${seenWords(one.sign, one.outcome)}`
				}
			: null;
	};
	return {
		hypotheses: hypothesesOf(reasoning),
		possible: model.faults.length,
		reader: wheelReaderOf(model.type)?.name ?? '',
		nothing: reasoning.belief.nothing,
		/** What of it is nothing that the library describes, at whatever place. */
		notDescribed: [...model.background].reduce(
			(sum, index) => sum + (reasoning.belief.present[index] ?? 0),
			0
		),
		grid: shownGrid(reasoning, entries),
		test: first ?? null,
		others: tests.filter((one) => one !== first).slice(0, MOST_OTHERS),
		more: tests.filter((one) => one !== first).slice(MOST_OTHERS, 10),
		why: decision.why,
		mending: mendingSteps(reasoning),
		explains: explanationsShown(reasoning),
		left: leftWords(reasoning, entries),
		together: togetherIn(reasoning),
		cascade: cascadeOf(view.codes, view.lastCompleteScan, model.type, view.book),
		contradictions: reasoning.contradictions.slice(0, 2).map(({ good, bad }) => ({
			good: titleOf(good),
			bad: titleOf(bad)
		})),
		numbering: numberingWords(reasoned),
		...meaninglessIn(view.codes),
		policy: {
			proving,
			confidence: policy.confidence,
			wrongPartMinutes: policy.wrongPartMinutes
		},
		record: learnedLines(spoken),
		steps: ofKind(entries, 'test-step')
			.map(({ id, payload, authorName, observedAt }) => ({
				id,
				name: payload.test ? testWords(payload.name, payload.place, model.type) : payload.name,
				how: payload.how,
				words:
					payload.how === 'done'
						? [
								...new Set(Object.entries(payload.seen).map(([key, outcome]) => seenWords(key, outcome)))
							].join(', ')
						: STEP_WORDS[payload.how].toLowerCase(),
				because: payload.because,
				from: payload.from,
				minutes: payload.minutes,
				by: authorName,
				time: clock(observedAt)
			}))
			.reverse()
	};
}

/** Wheels that fail at once since the last repair, and what of all that they share nobody has looked at yet. */
function togetherIn({ observations, model, epoch }: ReasonedCase['reasoning']) {
	const now = observations.filter((one) => one.epoch === epoch);
	const wheels = now.flatMap(({ sign, outcome }) => {
		const { sign: id, place } = splitKey(sign);
		return id === 'wheel-code' && !NO_CIRCUIT.includes(outcome) ? [place] : [];
	});
	const looked = new Set(now.map(({ sign }) => sign));
	return wheelsTogether(model.type, [...new Set(wheels)], looked)?.[0] ?? null;
}

/** Codes of which nobody has said yet what they mean: they tell nothing of a place. */
function meaninglessIn(codes: ReasonedCase['view']['codes']) {
	const meaningless = codes.filter(({ title }) => title === null);
	return {
		meaningless: [...new Set(meaningless.map(({ dtc }) => codeNumber(dtc)))].map((number) => ({
			text: numberCalled(number, null),
			slug: slugOfNumber(number, null)
		})),
		onlyMeaningless: codes.length > 0 && meaningless.length === codes.length
	};
}

/** By which numbering codes are read, while nothing tells it: with the one fact that decides. */
function numberingWords({ reasoning, view }: ReasonedCase): { words: string; code: string } | null {
	const [likelier, other] = reasoning.numbering;
	const [code] = view.numberingOpen;
	if (!likelier || !other || code === undefined) return null;
	const says = (numbering: typeof likelier) =>
		`${numbering.numbering === 'circuit' ? 'the older numbering by circuit' : 'the newer table'} ${percentWords(numbering.p)}`;
	return {
		code,
		words: `${view.numberingOpen.join(', ')} ${view.numberingOpen.length === 1 ? 'means' : 'mean'} one thing or another: ${says(likelier)}, ${says(other)}. The list of codes that this module knows decides; where it gives none, the maker’s.`
	};
}

/** What the work of others may have left behind, where it is suspected at all. */
function leftWords(
	{ belief, model }: ReasonedCase['reasoning'],
	entries: ReasonedCase['entries']
): { fault: string; work: string } | null {
	const left = repairInducedBy(workDone(entries).map(({ work }) => work));
	const [likeliest] = [...model.faults.keys()]
		.filter((index) => left.has(model.faults[index]?.fault.id ?? ''))
		.sort((a, b) => (belief.present[b] ?? 0) - (belief.present[a] ?? 0));
	if (likeliest === undefined || (belief.present[likeliest] ?? 0) < LEFT_FROM) return null;
	const work = left.get(model.faults[likeliest]?.fault.id ?? '') ?? '';
	return { fault: faultWords(model, [likeliest]), work: works.get(work)?.words ?? work };
}
