import { beforeEach, describe, expect, it } from 'vitest';
import { bookOf, shippedBook, shippedPacks, type CodeBook } from '../../../../library/codes';
import type { CodePack } from '../../../../library/codePack';
import { BusAnalysis } from '../../core/bus/analyseLog';
import { findCodes } from '../../core/codes/findCodes';
import { parseSpelling, type AnyCode } from '../../core/codes/spelling';
import { codeSources } from './codeSources';
import { answerByte, answerCode, codeOfSlug, slugOf } from './decoderAnswer';
import { describeEntry } from '../thread/describe';
import { EntryDraft } from '../entries/entry';
import { keptLog, readLog, NoFrameLog } from './frameLogReading';
import { explainLogExchange } from './logExchange';
import { reportedCodes } from './reported';
import { BRAKE, OPEN, ThreadMaker } from '../thread/threads.fixture';

let maker: ThreadMaker;
beforeEach(() => {
	maker = new ThreadMaker();
});
const code = (text: string): AnyCode => {
	const spelled = parseSpelling(text);
	const [first] = spelled.ok ? spelled.value.codes : [];
	if (!first) throw new Error(text);
	return first;
};
const paste = (text: string) =>
	maker.add('codes-reported', {
		origin: 'pasted',
		sourceName: 'print-out',
		text,
		modules: findCodes(text).modules
	});

async function logged(text: string) {
	return readLog(
		(async function* () {
			yield new TextEncoder().encode(text);
		})()
	);
}
const TALK = [
	'(5.000000) b 7E0#031902FF',
	'(5.001000) b 7E8#075902FF4045132F',
	'(5.002000) b 7E0#0322F40D',
	'(5.003000) b 7E8#0462F40D2A',
	'(5.004000) b 7E0#023E80',
	'(5.005000) b 7E0#0214FF',
	'(5.006000) b 7E8#037F1433',
	'(5.007000) b 18FECA0B#04FF15030503FFFF'
].join('\n');

describe('codes that were told to us', () => {
	it('say whether our own readings bear them out', () => {
		paste('Brake control\nC0045-13 Status: 2F\n Vehicle speed : 12 km/h\nC0050-2F stored');
		const ours = () => reportedCodes(maker.thread).map((c) => `${c.answer.text} ${c.ours}`);
		expect(ours()).toEqual(['C0045-13 not-read', 'C0050-2F not-read']);
		maker.scan([[BRAKE, OPEN, 0xaf]], { outcome: 'partial' });
		expect(ours()).toEqual(['C0045-13 read-too', 'C0050-2F not-read']);
		maker.scan([[BRAKE, OPEN, 0xaf]]);
		expect(ours()).toEqual(['C0045-13 read-too', 'C0050-2F not-found']);
		expect(reportedCodes(maker.thread)[0]).toMatchObject({
			module: 'Brake control',
			state: 'failing now, confirmed',
			values: [{ name: 'Vehicle speed', text: '12 km/h' }]
		});
		expect(reportedCodes(maker.thread)[1]?.state).toBe('stored');
	});

	it('without a suffix any of that number bears them out', () => {
		maker.scan([[BRAKE, OPEN, 0xaf]]);
		paste('they said C0045');
		expect(reportedCodes(maker.thread)[0]?.ours).toBe('read-too');
	});

	it('a correction takes the place of what it corrects', () => {
		const first = paste('C0045');
		maker.add(
			'codes-reported',
			{ origin: 'pasted', sourceName: 'print-out', text: 'C0040', modules: findCodes('C0040').modules },
			{ supersedes: { entryId: first.id, why: 'read wrongly' } }
		);
		expect(reportedCodes(maker.thread).map((c) => c.answer.text)).toEqual(['C0040']);
	});

	it('come from a frame log too, from modules and from senders to all', async () => {
		const log = keptLog(await logged(TALK), 'ride.log', TALK.length);
		const entry = maker.add('frame-log', log);
		expect(reportedCodes(maker.thread).map((c) => [c.answer.text, c.module])).toEqual([
			['C0045-13', '7E8'],
			['SPN 789 FMI 5', 'sender 0B']
		]);
		expect(describeEntry(entry)).toEqual({
			title: 'Frame log ride.log',
			detail: 'C0045-13, SPN 789 FMI 5',
			shows: null
		});
	});
});

describe('a frame log as evidence', () => {
	it('fits its entry, whatever was in it', async () => {
		const draft = {
			id: '01JD0000000000000000000001',
			caseId: 'case',
			version: 1,
			observedAt: '2026-11-25T09:00:00.000Z',
			supersedes: null,
			kind: 'frame-log',
			payload: keptLog(await logged(`${TALK}\nrubbish\n(6) b 7E8#2A00`), 'ride.log', 10)
		};
		const parsed = EntryDraft.safeParse(draft);
		expect(parsed.error?.issues ?? []).toEqual([]);
	});

	it('keeps no more than a page of exchanges and counts the rest', async () => {
		const many = Array.from({ length: 1500 }, (_, i) => `(${i}.0) b 7E0#023E00\n(${i}.1) b 7E8#027E00`).join(
			'\n'
		);
		const kept = keptLog(await logged(many), 'long.log', many.length);
		expect([kept.exchanges.length, kept.exchangeCount]).toEqual([1000, 1500]);
	});

	it('what is none is refused in a sentence', async () => {
		await expect(logged('')).rejects.toThrow(NoFrameLog);
		await expect(logged('PK\0\0')).rejects.toThrow(/binary file/);
		await expect(logged('Dear workshop')).rejects.toThrow(/Line 1, column 1: expected/);
	});

	it('opens byte by byte, and says of each exchange how it ended', async () => {
		const { exchanges } = keptLog(await logged(TALK), 'ride.log', 1);
		const rows = exchanges.map(explainLogExchange);
		expect(rows.map((row) => row.outcome)).toEqual([
			'7 bytes',
			'4 bytes',
			'no answer, none was wanted',
			'refused: access is locked'
		]);
		expect(rows[1]?.messages[1]?.fields.at(-1)).toEqual({
			from: 3,
			bytes: '2A',
			name: 'vehicle speed',
			text: '42 km/h'
		});
		expect(rows[0]?.route).toBe('7E0 → 7E8');
	});
});

describe('addresses of code pages', () => {
	it.each(['C0045-13/2F', 'C0045', 'SPN 789 FMI 5', 'lamp 3-4'])('lead back to %s', (text) => {
		const [slug = ''] = slugOf(code(text)).split('?');
		const back = codeOfSlug(slug);
		expect(back && slugOf(back)).toBe(slug);
	});

	it('that name no single code lead nowhere', () => {
		for (const slug of ['', 'nonsense', '59-02-FF-40-35-14-2F-C1-21-87-AF', '%'])
			expect(codeOfSlug(slug)).toBeNull();
	});

	it('the decoder names what a suffix and a status mean, and says when a code depends on the maker', () => {
		expect(answerByte('-2f')).toMatchObject({
			text: '2F',
			suffix: 'signal erratic',
			status: 'failing now, confirmed'
		});
		expect(answerByte('C0')).toMatchObject({ suffix: 'reserved by the standard' });
		expect(answerByte('C00')).toBeNull();
		expect(answerCode(code('C1A45-2F'), shippedBook, null).title).toMatch(/depends on the vehicle/);
		expect(answerCode(code('C1A45-2F'), shippedBook, 'Brindle').title).toMatch(/long gap each turn/);
	});
});

describe('several sources for one code', () => {
	const titles = (book: CodeBook, ofMaker: string | null) =>
		codeSources(book, { code: 'C0045', failureType: '13', maker: ofMaker }).sources.map((s) => s.name);

	it('stand beside each other with what they disagree on; silence is no disagreement', () => {
		const { disagreements } = codeSources(shippedBook, {
			code: 'C0045',
			failureType: '13',
			maker: 'Brindle'
		});
		expect(disagreements.map((d) => d.about)).toEqual(['which circuit it is', 'what sets it']);
		expect(disagreements[0]?.says.map((s) => s.text)).toEqual([
			'rear left, wheel speed: tyre, ring, gap, sensor, lead, module input',
			'rear left, wheel speed: tyre, ring, gap, sensor, lead, module input',
			'pressure sensing'
		]);
		expect(codeSources(shippedBook, { code: 'C0037' }).disagreements).toEqual([]);
	});

	it('a maker is heard for its own vehicles only, and first', () => {
		expect(titles(shippedBook, null)).toEqual(['Circuit numbering', 'Chassis code table']);
		expect(titles(shippedBook, 'Norvane')[0]).toBe('Norvane: codes of the maker');
	});

	it('a ring and a sensor are one circuit: sources that name one each agree on it', () => {
		const like = shippedPacks.find((pack) => pack.id === 'circuit-numbering') as CodePack;
		const ring = (id: string, group: 'wheel-speed' | 'tone-ring'): CodePack => ({
			...like,
			id,
			definitions: like.definitions.filter((d) => d.code === 'C0045').map((d) => ({ ...d, group }))
		});
		const book = bookOf([ring('a', 'wheel-speed'), ring('b', 'tone-ring')]);
		expect(codeSources(book, { code: 'C0045' }).disagreements).toEqual([]);
	});
});

it('an analysis that was given nothing says nothing', () => {
	const analysis = new BusAnalysis();
	analysis.end();
	expect([analysis.frames, analysis.durationS, analysis.modules.length]).toEqual([0, 0, 0]);
});
