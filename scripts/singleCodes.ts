// npm run single-codes: what is advised where one code alone is known, as a table for docs/reasoning.md.
import { shippedBook } from '../library/codes';
import { vehicleTypes } from '../library/index';
import { reasonModel } from '../library/reason/model';
import { caseCodes } from '../src/lib/case/codes/caseCodes';
import { hypothesesOf, testWords } from '../src/lib/case/reason/plan';
import { reasonAbout } from '../src/lib/case/reason/reasoning';
import { standing } from '../src/lib/case/thread/thread';
import { oneCodeRead } from '../src/lib/case/thread/oneCode.fixture';
import { PROVE_FIRST } from '../src/lib/core/path/policy';
import { codeWithSuffix } from '../src/lib/core/codes/dtc';

/** Failing when read, and only stored. */
const NOW = 0x2f;
const STORED = 0x2c;
const CASES: readonly [role: string, dtc: string, status: number][] = [
	['brake', '402013', NOW],
	['brake', '401013', STORED],
	['yaw', '419629', STORED],
	['brake', '413114', NOW],
	['steering-angle', '405154', NOW],
	['brake', '416126', STORED],
	['cluster', 'C12687', STORED],
	['brake', '404513', NOW],
	['brake', '404513', STORED],
	['brake', '40452F', STORED],
	['park-brake', '5F2013', NOW]
];
const SHOWN = 3;

const type = vehicleTypes.get('norvane-heath');
if (!type) throw new Error('the library has no ambulance');
const percent = (p: number) => `${Math.round(p * 100)} %`;
console.log('| code | when read | likeliest | next | a part advised |\n| --- | --- | --- | --- | --- |');
for (const [role, dtc, status] of CASES) {
	const maker = oneCodeRead(type, role, dtc, status);
	const codes = caseCodes(maker.thread, shippedBook);
	const reasoning = reasonAbout(standing(maker.thread), reasonModel(type), {
		book: shippedBook,
		codes,
		policy: PROVE_FIRST
	});
	const { decision, model, candidates } = reasoning;
	const likeliest = hypothesesOf(reasoning)
		.slice(0, SHOWN)
		.map(({ fault, probability }) => `${fault} ${percent(probability)}`)
		.join('; ');
	const placed = candidates.find(({ id }) => id === decision.test?.test.id);
	const first = model.repairs[decision.mending[0]?.repair ?? -1];
	const next = placed ? testWords(placed.kind.name, placed.place, type) : (first?.name ?? 'nothing');
	const part = decision.test === null && first?.part === true;
	console.log(
		`| ${codeWithSuffix(dtc)} ${codes[0]?.title ?? 'not in the library'} | ${status === NOW ? 'fails' : 'stored'} | ${likeliest} | ${next} | ${part ? 'yes' : 'no'} |`
	);
}
