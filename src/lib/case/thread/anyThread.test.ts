import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import { reasonModel } from '../../../../library/reason/model';
import { policyAt } from '../../core/path/policy';
import { anyThread, mutated } from './anyEntry.fixture';
import { beforeAfter } from '../paper/beforeAfter';
import { typeOf } from './vehicleOf';
import { comebackStart } from '../proof/comeback';
import { describeEntry, whatItShowed } from './describe';
import { countedRecordings } from '../proof/drivenKm';
import { EntryDraft } from '../entries/entry';
import { knownEntry } from './knownEntry';
import { mayClear } from '../codes/mayClear';
import { oneCodeRead } from './oneCode.fixture';
import { projectCase } from '../progress/project';
import { begun, COMES_AND_GOES } from '../proof/proof.fixture';
import { provingDrivePlan } from '../proof/provingDrive';
import { proofView } from '../proof/proofView';
import { mendingSteps, shownTest } from '../reason/reasonView';
import { shownGrid } from '../reason/gridView';
import { reasonAbout } from '../reason/reasoning';
import { caseReport } from '../paper/report';
import { reportedCodes } from '../codes/reported';
import { summarise } from '../progress/summary';
import { caseTestConditions } from '../watch/testConditions';
import { watchDefaults } from '../watch/watchDefaults';

/** Thousands of threads are drawn: they take as long as they take. */
const TIMEOUT_MS = 300_000;

describe('whatever a thread holds that the schema lets through', () => {
	it('is written by the schema itself: every entry drawn is one that a client may send', () => {
		fc.assert(
			fc.property(anyThread(), (thread) => {
				for (const entry of thread) {
					const parsed = EntryDraft.safeParse(JSON.parse(JSON.stringify(entry)));
					expect(parsed.error?.issues).toBeUndefined();
				}
			}),
			{ numRuns: 100 }
		);
	});

	/** Threads as they grow: one of every turn that a case takes. */
	const grown = [
		begun().proving().dropsOut().thread,
		begun(COMES_AND_GOES).told(3, 30).proving().driven(40).letGo('exposure').thread,
		...[...vehicleTypes.values()].map((type) => oneCodeRead(type, 'brake', '404513', 0x2f).thread)
	];
	it.each([
		['drawn from the schema', anyThread(), 2000],
		['grown here and then spoiled', mutated(grown), 1500]
	])(
		'no projection fails on what is %s',
		(_, threads, numRuns) => {
			fc.assert(
				fc.property(threads, (drawn) => {
					const thread = drawn.map((entry) => knownEntry(JSON.parse(JSON.stringify(entry))));
					const view = projectCase(thread, shippedBook);
					summarise(thread, view);
					caseReport(thread, view);
					for (const [i, entry] of thread.entries()) {
						describeEntry(entry);
						whatItShowed(thread.slice(0, i), entry);
					}
					for (const code of view.codes) proofView(code, view.entries, view.codes);
					beforeAfter(view.entries);
					countedRecordings(view.entries);
					mayClear(view, null);
					provingDrivePlan(view);
					reportedCodes(view.entries, view.book);
					caseTestConditions(view);
					watchDefaults(view);
					comebackStart(thread, 'TP-0401', 'This workshop');
				}),
				{ numRuns }
			);
		},
		TIMEOUT_MS
	);

	const models = new Map([...vehicleTypes].map(([id, type]) => [id, reasonModel(type)]));
	it(
		'nor does the reasoning: what it does not know says nothing',
		() => {
			fc.assert(
				fc.property(anyThread(), (drawn) => {
					const thread = drawn.map((entry) => knownEntry(JSON.parse(JSON.stringify(entry))));
					const view = projectCase(thread, shippedBook);
					const type = typeOf(view.entries);
					const model = type && models.get(type.id);
					if (!model) return;
					const reasoning = reasonAbout(view.entries, model, {
						book: view.book,
						codes: view.codes,
						policy: policyAt(0.8)
					});
					shownGrid(reasoning, view.entries);
					mendingSteps(reasoning);
					for (const ranked of reasoning.decision.ranked) shownTest(reasoning, ranked);
					expect(reasoning.belief.present.every((p) => Number.isFinite(p))).toBe(true);
				}),
				{ numRuns: 8 }
			);
		},
		TIMEOUT_MS
	);
});
