import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** What the table of outcomes was counted from, as hashes: the library's data, and the code that plays it. */
export interface CountedFrom {
	data: string;
	bench: string;
}

/** Words for people change nothing that is counted; nor does what is seen by eye, which goes by a rule. */
const WORDS = new Set([
	'name',
	'why',
	'words',
	'asks',
	'says',
	'look',
	'how',
	'source',
	'title',
	'colour',
	'where',
	'use',
	'model',
	'notes',
	'causes',
	'lamps',
	'driving',
	'setConditions',
	'testConditions',
	'exposes',
	'date',
	'minutes',
	'sights',
	'visible'
]);
const DATA = [
	'library/faults/faults.json',
	'library/measure/measurements.json',
	'library/measure/inspections.json',
	'library/identifiers.json',
	'library/vehicles',
	'library/codes'
];
const CODE = [
	'src/lib/bench',
	'src/lib/core/codes',
	'src/lib/core/electrical',
	'src/lib/core/live',
	'src/lib/core/scope',
	'src/lib/core/uds',
	'library/faultPlaces.ts',
	'library/measurePoints.ts',
	'library/reason/codeMoment.ts',
	'library/reason/codeSigns.ts',
	'library/reason/liveSigns.ts',
	'library/reason/relations.ts'
];

function filesOf(path: string, kind: string): string[] {
	if (path.endsWith(kind)) return [path];
	return readdirSync(path, { withFileTypes: true })
		.flatMap((one) => (one.isDirectory() ? filesOf(join(path, one.name), kind) : [join(path, one.name)]))
		.filter((file) => file.endsWith(kind) && !/\.(test|fixture)\.ts$/.test(file))
		.sort();
}

const hashOf = (texts: readonly string[]): string => {
	const hash = createHash('sha256');
	for (const text of texts) hash.update(text).update('\0');
	return hash.digest('hex').slice(0, 16);
};

const withoutWords = (text: string): string =>
	JSON.stringify(JSON.parse(text), (key, value: unknown) => (WORDS.has(key) ? undefined : value));

/** Outcomes by name, not by their words; tests by what they show. */
function signsAndTests(): string[] {
	const { signs } = JSON.parse(readFileSync('library/reason/signs.json', 'utf8')) as {
		signs: { id: string; about: string; good: string; outcomes: object }[];
	};
	const { tests } = JSON.parse(readFileSync('library/reason/tests.json', 'utf8')) as {
		tests: { id: string; about: string; roles?: string[]; signs: unknown[] }[];
	};
	return [
		JSON.stringify(signs.map(({ id, about, good, outcomes }) => [id, about, good, Object.keys(outcomes)])),
		JSON.stringify(tests.map(({ id, about, roles, signs: shown }) => [id, about, roles, shown]))
	];
}

/** Comments and line breaks change nothing that is counted. */
const bare = (code: string): string =>
	code
		.replace(/\/\*[\s\S]*?\*\//g, '')
		.replace(/^\s*\/\/.*$/gm, '')
		.replace(/\s+/g, ' ');

export const countedFromNow = (): CountedFrom => ({
	data: hashOf([
		...DATA.flatMap((path) => filesOf(path, '.json')).map((file) => withoutWords(readFileSync(file, 'utf8'))),
		...signsAndTests()
	]),
	bench: hashOf(CODE.flatMap((path) => filesOf(path, '.ts')).map((file) => bare(readFileSync(file, 'utf8'))))
});
