import { fittingLacks } from './fittings';
import { FAMILY_WORDS } from '../../../library/sensorFamilies';
import { formatSpelling } from '../core/codes/spelling';
import { VERDICT_WORDS, type Verdict } from '../core/prove/proof';
import { caseCodes, describeCode } from './codes';
import type { Entry } from './entry';
import { valueWords, windowWords } from './measureWords';
import { STEP_WORDS, seenWords } from './reason/words';
import { lowerFirst, positionWords } from './words';

/** How an entry reads on the thread: a headline, a line of detail, and what it showed. */
export interface EntryLine {
	title: string;
	detail: string;
	shows: string | null;
}

/** 95 → `1 min 35 s`. */
const spanWords = (seconds: number) =>
	seconds < 60 ? `${Math.round(seconds)} s` : `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;

const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** One entry as the thread panel shows it. */
export interface ThreadLine extends Omit<EntryLine, 'shows'> {
	shows: Shown[];
	id: string;
	kind: string;
	time: string;
	author: string;
	seq: number;
	/** Why this entry replaced an older one. */
	corrects: string | null;
	superseded: boolean;
	hash: string;
}

const MOST_LISTED = 8;
/** Each once, and how many more there are. */
function listed(texts: string[]): string {
	const once = [...new Set(texts)];
	const more = once.length - MOST_LISTED;
	return once.slice(0, MOST_LISTED).join(', ') + (more > 0 ? ` and ${more} more` : '');
}

export function describeEntry(entry: Entry): EntryLine {
	const line = (title: string, detail: string, shows: string | null = null): EntryLine => ({
		title,
		detail,
		shows
	});
	switch (entry.kind) {
		case 'case-opened':
			return line(
				entry.payload.comebackOf ? `Comeback of ${entry.payload.comebackOf.number}` : 'Case opened',
				`${entry.payload.name}, ${entry.payload.plate}`
			);
		case 'vehicle-checked':
			return line(
				'Vehicle read',
				`${entry.payload.vin} at ${entry.payload.odometerKm.toLocaleString('en-GB')} km`,
				entry.payload.checkDigitFits ? null : 'check digit does not fit'
			);
		case 'complaint':
			return line('Complaint', entry.payload.words);
		case 'lamps-reported': {
			const { lamps } = entry.payload;
			return line(
				'Lamps',
				lamps.length > 0 ? lamps.map((l) => `${l.lamp} ${l.manner}, ${l.when}`).join('; ') : 'none reported'
			);
		}
		case 'prior-work': {
			const { works } = entry.payload;
			return line(
				'Work by others',
				works.length > 0 ? works.map((w) => w.part).join(', ') : 'none known',
				works.length > 0 ? 'not proven good by being new' : null
			);
		}
		case 'tyres-fitted':
			return line('Tyres', [...new Set(entry.payload.tyres.map((t) => t.size))].join(' and '));
		case 'network-scan': {
			const { modules, outcome, stoppedBecause, modulesExpected } = entry.payload;
			const codes = modules.flatMap((m) => m.codes);
			const silent = modules.filter((m) => !m.answered).map((m) => m.name);
			return line(
				outcome === 'complete'
					? `Read, all ${count(modulesExpected, 'module')}`
					: `Partial scan, ${modules.length} of ${modulesExpected}`,
				codes.length > 0 ? [...new Set(codes.map((c) => describeCode(c.dtc).text))].join(', ') : 'no codes',
				stoppedBecause ?? (silent.length > 0 ? `silent: ${silent.join(', ')}` : null)
			);
		}
		case 'codes-reported': {
			const codes = entry.payload.modules.flatMap((m) => m.codes);
			return line(
				entry.payload.origin === 'typed'
					? 'Code noted'
					: `${count(codes.length, 'code')} from ${entry.payload.sourceName || 'a text'}`,
				listed(codes.map(({ code }) => formatSpelling(code))),
				'told, not read by us'
			);
		}
		case 'lamp-read': {
			const { lamp, groups, repeats, confidence, meaning } = entry.payload;
			return line(
				`Lamp code ${groups.join('-')}`,
				meaning || `${lamp}, no table for it`,
				repeats < 2 || confidence < 0.9 ? 'seen once only or not sure' : `shown ${repeats} times`
			);
		}
		case 'frame-log': {
			const { fileName, modules, broadcasts, exchangeCount, problemCount } = entry.payload;
			const codes = [
				...modules.flatMap((m) =>
					m.codes.map((code) => formatSpelling({ kind: 'dtc', ...code, status: null }))
				),
				...broadcasts.flatMap((b) => b.codes.map(({ spn, fmi }) => `SPN ${spn} FMI ${fmi}`))
			];
			return line(
				`Frame log ${fileName}`,
				codes.length > 0 ? listed(codes) : `${count(exchangeCount, 'exchange')}, no codes`,
				problemCount > 0 ? count(problemCount, 'broken message') : null
			);
		}
		case 'source-judged': {
			const { code, failureType, supported, because } = entry.payload;
			return line(
				`${code}${failureType ? `-${failureType}` : ''}: ${supported.name} is right here`,
				because,
				supported.says
			);
		}
		case 'live-recording': {
			const { name, source, durationS, findings, verdict, endedBecause } = entry.payload;
			const from = source.kind === 'file' ? source.fileName : 'from the vehicle';
			const title = name || 'Live recording';
			return line(
				`${title}, ${spanWords(durationS)}`,
				verdict,
				endedBecause ?? (findings.length > 0 ? count(findings.length, 'finding') : from)
			);
		}
		case 'wheel-round': {
			const { mode, corners } = entry.payload;
			const bad = corners.filter(({ result }) => result !== 'answers' && result !== 'turns-mate');
			return line(
				mode === 'hand' ? 'Wheels turned by hand' : 'Wheels driven on stands',
				bad.length > 0
					? bad.map(({ text }) => text).join(' ')
					: corners.length === 1
						? 'one wheel answers'
						: `${corners.length} wheels answer`
			);
		}
		case 'sensor-identified': {
			const { position, family, probability, answers } = entry.payload;
			const how =
				Object.keys(answers).length === 0
					? 'by the vehicle’s data'
					: `${Math.round(100 * probability)} % by what was seen`;
			return line(
				`Sensor: ${FAMILY_WORDS[family].name}`,
				`${position ? positionWords(position) : 'all wheels'}, ${how}`
			);
		}
		case 'meter-reading': {
			const { position, name, value, quantity, judged, window } = entry.payload;
			const where = position ? `${positionWords(position)}: ` : '';
			const out =
				judged === 'in' ? null : judged === 'out' ? 'outside its window' : 'on the edge of its window';
			return line(
				`${where}${valueWords(value, quantity)}`,
				`${lowerFirst(name)}, expected ${windowWords(window, quantity)}`,
				out
			);
		}
		case 'scope-capture': {
			const { name, verdict, channels, durationS } = entry.payload;
			const found = channels.reduce((sum, { findings }) => sum + findings.length, 0);
			return line(
				`${name || 'Capture'}, ${durationS.toFixed(durationS < 10 ? 2 : 0)} s`,
				verdict,
				found > 0 ? count(found, 'finding') : null
			);
		}
		case 'substitution': {
			const { position, name, outcome, says } = entry.payload;
			return line(
				`${positionWords(position)}: ${lowerFirst(name)}`,
				says,
				outcome === 'follows' ? null : 'does not follow'
			);
		}
		case 'harness-search': {
			const { position, wire, found, between, says } = entry.payload;
			return line(
				`${positionWords(position)}, ${wire} wire halved`,
				found ? says : `between ${between[0]} and ${between[1]}`,
				found ? 'found' : null
			);
		}
		case 'test-step': {
			const { payload } = entry;
			const seen = Object.entries(payload.seen).map(([key, outcome]) => seenWords(key, outcome));
			const told = [...new Set(seen)].slice(0, 3).join(', ');
			return payload.how === 'done'
				? line(payload.name, [told, payload.because].filter(Boolean).join('; ') || 'done')
				: line(`Set aside: ${payload.name}`, `${STEP_WORDS[payload.how]}. ${payload.because}`.trim());
		}
		case 'waiting': {
			const { what, lift, note } = entry.payload;
			return line(
				what === 'nothing' ? 'Work goes on' : `Waits for ${what}`,
				[lift, note].filter(Boolean).join('; ') || '–'
			);
		}
		case 'inspection': {
			const { position, name, result, found, photos } = entry.payload;
			const seen = found.length > 0 ? found.join(', ') : result === 'good' ? 'nothing wrong' : 'not sure';
			return line(
				`${positionWords(position)}: ${lowerFirst(name)}`,
				photos.length > 0 ? `${seen}, ${count(photos.length, 'photo')}` : seen,
				result === 'bad' ? 'bad' : null
			);
		}
		case 'repair': {
			const { title, position, parts, temporary } = entry.payload;
			const where = position ? positionWords(position) : 'vehicle';
			return line(title, [where, ...parts.map((p) => p.name)].join(', '), temporary ? 'temporary' : null);
		}
		case 'repair-planned': {
			const { title, answer, missing, because } = entry.payload;
			const lacks = missing.map(({ words }) => words).join(', ');
			return line(
				`Chosen: ${lowerFirst(title)}`,
				because || (answer === 'yes' ? 'can be finished here' : `lacks ${lacks}`),
				answer === 'yes' ? null : answer === 'partly' ? 'only partly here' : 'not to be begun here'
			);
		}
		case 'fitting': {
			const { name, place, steps } = entry.payload;
			const lacks = fittingLacks(entry.payload);
			const where = place ? `${positionWords(place)}: ` : '';
			const done = steps.filter(({ state }) => state === 'done').length;
			return line(
				`${where}${lowerFirst(name)} fitted`,
				`${done} of ${count(steps.length, 'step')}`,
				lacks.length > 0 ? lacks.slice(0, 3).join('; ') : null
			);
		}
		case 'calibration': {
			const { name, how, state, values, detail } = entry.payload;
			const shown = values
				.filter(({ after }) => after !== null)
				.map(
					({ name: of, before, after, unit }) =>
						`${of} ${before ?? 'none'} → ${after}${unit ? ` ${unit}` : ''}`
				);
			return line(
				`${name}: ${state}`,
				shown.length > 0
					? shown.join(', ')
					: detail || (how === 'link' ? 'through the link' : how.replace('-', ' ')),
				state === 'done' ? null : detail
			);
		}
		case 'calibration-waived':
			return line(`Waived: ${lowerFirst(entry.payload.name)}`, entry.payload.why);
		case 'codes-cleared': {
			const done = entry.payload.modules.filter((m) => m.outcome === 'cleared');
			const not = entry.payload.modules.filter((m) => m.outcome !== 'cleared');
			return line(
				`Cleared in ${count(done.length, 'module')}`,
				done.map((m) => m.name).join(', ') || 'nothing cleared',
				not.length > 0 ? `not: ${not.map((m) => m.name).join(', ')}` : null
			);
		}
		case 'key-cycled':
			return line(
				'Key cycled',
				entry.payload.confirmedBy === 'vehicle' ? 'counted by the gateway' : 'by the technician’s word'
			);
		case 'lamp-check': {
			const wrong = entry.payload.lamps.filter((l) => l.result !== 'lit and went out');
			return line(
				'Lamps watched at key-on',
				wrong.length === 0 ? 'all lit and went out' : wrong.map((l) => `${l.lamp} ${l.result}`).join(', ')
			);
		}
		case 'proving-drive':
			return line(
				`Proving drive, ${entry.payload.distanceKm} km`,
				`up to ${entry.payload.topSpeedKmh} km/h, ${count(entry.payload.stops, 'stop')}, ${entry.payload.road}`
			);
		case 'returns-told': {
			const { returns, overKm, from, conditions } = entry.payload;
			return line(
				`It came ${returns === 1 ? 'once' : `${returns} times`} in ${overKm} km`,
				[describeCode(entry.payload.dtc).text, `by ${from}`, conditions].filter(Boolean).join(', ')
			);
		}
		case 'proof-waived': {
			const { why, customer, residualChance } = entry.payload;
			return line(
				`Let go: ${describeCode(entry.payload.dtc).text}`,
				[why, customer ? `customer: ${customer}` : ''].filter(Boolean).join('; '),
				residualChance === null
					? null
					: `unrepaired it would have stayed silent so far with ${(residualChance * 100).toFixed(0)} %`
			);
		}
		case 'release':
			return line(`Released: ${entry.payload.words}`, entry.payload.why);
		case 'note':
			return line('Note', entry.payload.text);
		case 'unknown':
			return line('Not known to this version', entry.payload.kind, entry.payload.why);
		case 'signature':
			return line('Signed', entry.payload.statement, entry.payload.verdict);
	}
}

/** A piece of what an entry showed, and whether it proves something good. */
export interface Shown {
	words: string;
	good: boolean;
}

const CAN_CHANGE_A_VERDICT: readonly Entry['kind'][] = [
	'network-scan',
	'codes-cleared',
	'repair',
	'calibration',
	'key-cycled',
	'lamp-check',
	'live-recording',
	'proving-drive',
	'returns-told',
	'proof-waived'
];
/** Said of a code from the first, before anything was done. */
const AS_IT_CAME: readonly Verdict[] = ['never-cleared', 'expected', 'made-by-us', 'consequence'];

/** What an entry changed in the verdicts: compares the case before and after it. */
export function whatItShowed(threadBefore: Entry[], entry: Entry): Shown[] {
	if (!CAN_CHANGE_A_VERDICT.includes(entry.kind)) return [];
	const before = new Map(caseCodes(threadBefore).map((c) => [`${c.address}/${c.dtc}`, c.proof.verdict]));
	const changed = new Map<string, Shown>();
	for (const { address, dtc, text, proof } of caseCodes([...threadBefore, entry])) {
		if (AS_IT_CAME.includes(proof.verdict) || before.get(`${address}/${dtc}`) === proof.verdict) continue;
		const words = `${text} ${VERDICT_WORDS[proof.verdict].toLowerCase()}`;
		changed.set(words, { words, good: proof.verdict === 'proven-clear' });
	}
	return [...changed.values()];
}
