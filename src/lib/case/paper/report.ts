import { openWords } from '../codes/openReason';
import { codeKey } from '../../core/codes/codeKey';
import { signs, splitKey } from '../../../../library/reason/signs';
import { LINKS } from '../../../../library/links';
import { agreementOf } from '../progress/agreed';
import { costShown, type CostShown } from './costShown';
import { beforeAfter, type BeforeAfter } from './beforeAfter';
import type { Position } from '../../../../library/positions';
import { isBadBenchTest, isBenchTest, type BenchTest } from '../measure/benchTests';
import { caseCalibrations, whyDue } from '../mend/calibrations';
import { describeEntry } from '../thread/describe';
import { drivenKm } from '../proof/drivenKm';
import type { Entry } from '../entries/entry';
import { photosOf } from '../entries/photosOf';
import { keyTraces, type KeyTrace } from './keyTraces';
import { fittingLacks } from '../entries/fitting/lacks';
import { linksAt, type LinkState } from '../measure/measured';
import { complaintThings } from '../listen/complaintThings';
import { ANSWER_WORDS } from '../listen/complaintWords';
import { lampHistory } from '../codes/lampTold';
import { LAMP_CODE_WORDS, lampProof } from '../proof/proofSteps';
import { networkFindings } from '../codes/networkFindings';
import { typeOf } from '../thread/vehicleOf';
import type { CaseView } from '../progress/project';
import { proofView, type ProofView } from '../proof/proofView';
import { LINK_WORDS } from '../reason/linkWords';
import { latest, ofKind, standing } from '../thread/thread';
import { lowerFirst, positionWords, short, upperFirst } from '../words';

/** All that a report says, as data: the page, the PDF and the bundle are made from the same. */
export interface CaseReport {
	verdict: string;
	proven: boolean;
	/** Why it may not be handed over yet. */
	open: string[];
	/** By the plate on it; what nobody read there, as the vehicle itself told it. */
	vehicle: { vin: string | null; odometerKm: number | null; toldByItself: boolean } | null;
	/** `answers`: each thing that was said, and what came of it. */
	complaint: { words: string | null; lamps: string[]; prior: string[]; answers: string[] };
	/** What was found, by which test, and what that showed. */
	found: { title: string; detail: string; at: string; by: string }[];
	/** The same for whoever owns the vehicle: what tests at it found, without what its modules say of each other. */
	foundPlain: string[];
	/** What was tested and is as it should be. */
	foundGood: CaseReport['found'];
	grid: { columns: string[]; rows: { where: string; cells: LinkState[] }[] };
	repairs: {
		title: string;
		where: string | null;
		temporary: boolean;
		parts: { name: string; number: string; grade: string }[];
		note: string;
		checked: string | null;
		/** Parts were fitted at a wheel at which nothing had been measured or looked at before. */
		unmeasured: boolean;
	}[];
	calibrations: { id: string; name: string; state: string; values: string[]; words: string }[];
	codes: (Omit<ProofView, 'waivable'> & {
		key: string;
		text: string;
		title: string;
		failureType: string;
		moduleName: string;
		/** It only follows from another code. */
		follows: boolean;
	})[];
	/** What its lamp has told, each with whether it is told now; null for a vehicle that has a link. */
	byLamp: { code: string; words: string; now: string }[] | null;
	/** What is said where no code stands. */
	noCodes: string;
	beforeAfter: BeforeAfter | null;
	lampCheck: string[];
	drivenKm: number;
	/** What is left of the risk, in numbers. */
	residual: string[];
	/** The same for whoever owns the vehicle. */
	residualPlain: string[];
	/** What was asked for it and what the customer said; null where nobody asked for anything. */
	cost: CostShown | null;
	/** What a lead let go, and by whom. */
	waivers: string[];
	/** What whoever drives it must know. */
	cautions: string[];
	photos: { id: string; of: string }[];
	traces: KeyTrace[];
	/** `left`: what stood open when a lead closed it unproven; null where it was signed as proven. */
	signature: { by: string; at: string; statement: string; left: string[] | null } | null;
	evidence: {
		seq: number;
		at: string;
		by: string;
		title: string;
		detail: string;
		/** The detail is in somebody's own words. */
		theirs?: true;
		hash: string;
		superseded: boolean;
	}[];
	/** Why the chain of hashes does not hold; null where it does. */
	chainBroken: string | null;
}

const STATE_WORDS = {
	due: 'not done',
	done: 'done',
	waived: 'left out by a lead',
	failed: 'failed',
	interrupted: 'cut short'
} as const;

/**
 * @param thread as it is kept, what was superseded included
 * @param chainBroken why the thread is not as it was written, as the reading of it has found; null where it is
 */
export function caseReport(thread: Entry[], view: CaseView, chainBroken: string | null = null): CaseReport {
	const { entries } = view;
	const counting = new Set(standing(thread).map(({ id }) => id));
	const codes = view.codes.map((code) => ({
		...proofView(code, entries, view.codes),
		key: codeKey(code),
		text: code.text,
		title: code.called,
		failureType: code.failureType,
		moduleName: code.moduleName,
		follows: code.followsFrom !== null
	}));
	return {
		verdict: view.verdict,
		proven: view.proven,
		open: view.open.map(openWords),
		vehicle: vehicleOf(view),
		complaint: {
			words: latest(entries, 'complaint')?.payload.words ?? null,
			lamps: (latest(entries, 'lamps-reported')?.payload.lamps ?? []).map(
				({ lamp, manner, when }) => `${lamp} lamp ${manner}, ${when}`
			),
			prior: (latest(entries, 'prior-work')?.payload.works ?? []).map(({ part }) => part),
			answers: complaintThings(entries).flatMap(({ words, answer }) =>
				answer
					? [`${upperFirst(words)}: ${ANSWER_WORDS[answer.how]}${answer.why ? ` (${answer.why})` : ''}`]
					: []
			)
		},
		found: foundOf(view),
		foundPlain: plainlyFound(view),
		foundGood: goodOf(view),
		grid: gridOf(view),
		repairs: repairsOf(entries),
		calibrations: calibrationsOf(entries),
		codes,
		byLamp:
			lampProof(entries)?.codes.map(({ code, words, now }) => ({ code, words, now: LAMP_CODE_WORDS[now] })) ??
			null,
		noCodes: noCodesWords(view),
		beforeAfter: beforeAfter(entries),
		lampCheck: (latest(entries, 'lamp-check')?.payload.lamps ?? []).map(
			({ lamp, result }) => `${lamp} ${result}`
		),
		drivenKm: drivenKm(entries),
		residual: residualOf(codes, entries, inNumbers),
		residualPlain: residualOf(codes, entries, inPlainWords),
		cost: costShown(agreementOf(entries)),
		waivers: waiversOf(entries),
		cautions: cautionsOf(view),
		photos: firstPhotos(entries),
		traces: keyTraces(entries),
		signature: view.signature && {
			by: view.signature.authorName,
			at: view.signature.receivedAt,
			statement: view.signature.payload.statement,
			left: view.signature.payload.outcome === 'unproven' ? (view.signature.payload.left ?? []) : null
		},
		evidence: thread.map((entry) => {
			const { title, detail, theirs } = describeEntry(entry);
			return {
				seq: entry.seq,
				at: entry.observedAt,
				by: entry.authorName,
				title,
				detail,
				...(theirs ? { theirs } : {}),
				hash: entry.hash,
				superseded: !counting.has(entry.id)
			};
		}),
		chainBroken
	};
}

function vehicleOf({ entries, lastScan }: CaseView): CaseReport['vehicle'] {
	const checked = latest(entries, 'vehicle-checked')?.payload;
	if (checked) return { vin: checked.vin, odometerKm: checked.odometerKm, toldByItself: false };
	const told = lastScan?.payload;
	if (!told || (told.vin == null && told.odometerKm === undefined)) return null;
	return {
		vin: told.vin ?? null,
		odometerKm: told.odometerKm === undefined ? null : Math.round(told.odometerKm),
		toldByItself: true
	};
}

/** Nothing was found is said of what was looked at alone. */
function noCodesWords({ entries, lastScan, lastCompleteScan }: CaseView): string {
	const lamp = lampHistory(entries);
	if (lamp) return lamp.read ? 'Its lamp told of no fault.' : 'Its lamp was not read.';
	if (!lastScan) return 'No module was read.';
	return lastCompleteScan ? 'No module had a code.' : 'Of the modules that were read none had a code.';
}

function foundOf({ entries, lastCompleteScan, book }: CaseView): CaseReport['found'] {
	const [first] = ofKind(entries, 'network-scan');
	const network = first
		? networkFindings(first.payload, typeOf(entries), book).map(({ title, todo }) => ({
				title,
				detail: todo,
				at: first.observedAt,
				by: first.authorName
			}))
		: [];
	const tests = entries.filter((entry) => outcomeOf(entry) === 'bad').map(lineOf);
	return lastCompleteScan ? [...network, ...tests] : tests;
}

const lineOf = (entry: Entry): CaseReport['found'][number] => {
	const { title, detail, shows } = describeEntry(entry);
	return {
		title,
		detail: [detail, shows].filter(Boolean).join('; '),
		at: entry.observedAt,
		by: entry.authorName
	};
};

/** Each once, as a sentence. */
const plainlyFound = ({ entries }: CaseView): string[] => [
	...new Set(
		entries
			.filter((entry) => outcomeOf(entry) === 'bad')
			.map((entry) => {
				const { title, detail } = lineOf(entry);
				return `${[upperFirst(title), detail].filter(Boolean).join(': ').replace(/\.+$/, '')}.`;
			})
	)
];

const MOST_GOOD = 24;
/** What was tested and is as it should be: it justifies what was renewed as much as what was found bad. The newest of each once. */
function goodOf({ entries }: CaseView): CaseReport['found'] {
	const lines = entries.filter((entry) => outcomeOf(entry) === 'good').map(lineOf);
	return [...new Map(lines.map((line) => [line.title, line])).values()].slice(-MOST_GOOD);
}

/** Whether an entry tested something, and how that came out; null where it tested nothing. */
function outcomeOf(entry: Entry): 'good' | 'bad' | null {
	if (isBenchTest(entry)) return isBadBenchTest(entry) ? 'bad' : 'good';
	switch (entry.kind) {
		case 'test-step': {
			const seen = Object.entries(entry.payload.seen);
			if (entry.payload.how !== 'done' || seen.length === 0) return null;
			return seen.some(([key, outcome]) => isGoodSign(key, outcome) === false) ? 'bad' : 'good';
		}
		case 'swap':
			if (entry.payload.state !== 'back' || entry.payload.outcome === null) return null;
			return entry.payload.outcome === 'moved' ? 'bad' : 'good';
		case 'live-recording': {
			const { tried } = entry.payload;
			if (!tried || tried.length === 0) return null;
			return tried.some(({ changes }) => changes > 0) ? 'bad' : 'good';
		}
		default:
			return null;
	}
}

/** Null for a sign that this library does not know. */
function isGoodSign(key: string, outcome: string): boolean | null {
	const sign = signs.get(splitKey(key).sign);
	return sign ? sign.good === outcome : null;
}

function gridOf({ entries }: CaseView): CaseReport['grid'] {
	const wheels = typeOf(entries)?.wheels ?? [];
	const rows = wheels.map(({ position }) => {
		const links = linksAt(entries, position);
		return { where: positionWords(position), cells: LINKS.map((link) => links[link]) };
	});
	// A link that no test has spoken of is no column.
	const told = LINKS.map((_, at) => rows.some(({ cells }) => cells[at] !== 'open'));
	return {
		columns: LINKS.filter((_, at) => told[at]).map((link) => LINK_WORDS[link]),
		rows: rows.map(({ where, cells }) => ({ where, cells: cells.filter((_, at) => told[at]) }))
	};
}

function repairsOf(entries: readonly Entry[]): CaseReport['repairs'] {
	const sheets = ofKind(entries, 'fitting');
	return ofKind(entries, 'repair').map((repair) => {
		const { title, position, temporary, parts, note, does } = repair.payload;
		const sheet = sheets.filter(({ payload }) => payload.place === (does?.place ?? position)).at(-1);
		const lacks = sheet ? fittingLacks(sheet.payload) : [];
		return {
			title,
			where: position ? positionWords(position) : null,
			temporary,
			parts,
			note,
			checked: sheet
				? lacks.length === 0
					? `fitted by its sheet, every step done (${sheet.authorName})`
					: `by its sheet: ${lacks.join('; ')}`
				: null,
			unmeasured: parts.length > 0 && position !== null && !wasMeasured(entries, repair, position)
		};
	});
}

/** Whether anything was measured, captured or looked at there before. */
const wasMeasured = (entries: readonly Entry[], repair: Entry, position: Position): boolean =>
	entries
		.slice(0, entries.indexOf(repair))
		.some(
			(entry) =>
				(isBenchTest(entry) && placesOf(entry).includes(position)) ||
				(entry.kind === 'test-step' && entry.payload.how === 'done' && entry.payload.place === position)
		);
const placesOf = ({ payload }: BenchTest): (Position | null)[] =>
	'position' in payload ? [payload.position] : payload.channels.map(({ position }) => position);

function calibrationsOf(entries: readonly Entry[]): CaseReport['calibrations'] {
	return caseCalibrations(entries).map((one) => ({
		id: one.id,
		name: `${one.placed.calibration.name}, ${lowerFirst(one.placed.module.name)}`,
		state: STATE_WORDS[one.state],
		values:
			one.entry?.kind === 'calibration'
				? one.entry.payload.values
						.filter(({ after }) => after !== null)
						.map(({ name, before, after, unit }) => `${name} ${before ?? 'none'} → ${after} ${unit}`.trim())
				: [],
		words:
			one.entry?.kind === 'calibration-waived'
				? `${one.entry.payload.why} (${one.entry.authorName})`
				: one.entry?.kind === 'calibration'
					? one.entry.payload.detail
					: whyDue(one)
	}));
}

/** A share as it is said to a customer: "65 of 100 cases"; what is below one in a hundred, of a thousand. */
function ofCases(chance: number): string {
	const of = chance >= 0.0095 ? 100 : 1000;
	const count = Math.max(1, Math.round(chance * of));
	return `${count} of ${of} cases`;
}

const inNumbers = (residual: number): string =>
	`were it not mended, it would have stayed silent that far in ${ofCases(residual)}`;

/** What a chance that it is still there means for whoever drives. */
function inPlainWords(residual: number): string {
	if (residual <= 0.01) return 'that it is still there is hardly possible';
	if (residual <= 0.05) return 'it is very likely gone';
	if (residual <= 0.1) return 'it is probably gone: tell us if it shows again';
	return 'that is too little to be sure: watch for it, and come back if it shows';
}

function residualOf(
	codes: CaseReport['codes'],
	entries: readonly Entry[],
	says: (residual: number) => string
): string[] {
	const comes = codes.flatMap(({ text, comes: one, verdict }) => {
		if (!one || one.residual === null || !one.before) return [];
		const settled = verdict === 'proven-clear' || verdict === 'released';
		if (!settled) return [];
		return [
			`${text} used to come and go, ${one.before.returns === 1 ? 'once' : `${one.before.returns} times`} in ${short(one.before.km)} km. It was driven ${one.afterKm.toFixed(1)} km${one.drivenSo ? ` ${one.drivenSo}` : ''} without it: ${says(one.residual)}.`
		];
	});
	const temporary = ofKind(entries, 'repair')
		.filter(({ payload }) => payload.temporary)
		.map(({ payload }) => `${payload.title} is temporary: it has to be done again for good.`);
	return [...new Set([...comes, ...temporary])];
}

function waiversOf(entries: readonly Entry[]): string[] {
	return entries.flatMap((entry) => {
		if (entry.kind === 'calibration-waived')
			return [`${upperFirst(entry.payload.name)} left out by ${entry.authorName}: ${entry.payload.why}.`];
		if (entry.kind !== 'proof-waived') return [];
		const { title, detail, shows } = describeEntry(entry);
		return [`${title}, by ${entry.authorName}: ${[detail, shows].filter(Boolean).join('; ')}.`];
	});
}

const UNPROVEN_CAUTION =
	'The fault may still be there: anti-lock, stability or steering help can fail when they are needed. Whoever drives it has to know, and have it looked at again.';

function cautionsOf({ entries, signature }: CaseView): string[] {
	const due = caseCalibrations(entries).filter(({ state }) => state !== 'done');
	const base =
		due.length > 0
			? [
					'Until every calibration is done the vehicle has base brakes only: no anti-lock, no stability, no hill functions.'
				]
			: [];
	return [
		...(signature?.payload.outcome === 'unproven' ? [UNPROVEN_CAUTION] : []),
		...base,
		'The maker’s procedure and local law come first; a person decides and signs.'
	];
}

/** The same code in many modules with the same proof is told once. */
export function groupedCodes(
	codes: CaseReport['codes']
): (CaseReport['codes'][number] & { modules: string[] })[] {
	const groups = new Map<string, CaseReport['codes'][number] & { modules: string[] }>();
	for (const code of codes) {
		const key = JSON.stringify([code.text, code.words, code.marks.map(({ mark, state }) => [mark, state])]);
		const known = groups.get(key);
		if (known) known.modules.push(code.moduleName);
		else groups.set(key, { ...code, modules: [code.moduleName] });
	}
	return [...groups.values()];
}

const MOST_PHOTOS = 6;
function firstPhotos(entries: readonly Entry[]): CaseReport['photos'] {
	return entries
		.flatMap((entry) =>
			photosOf(entry).map(({ id }) => ({
				id,
				of: describeEntry(entry).title
			}))
		)
		.slice(0, MOST_PHOTOS);
}
