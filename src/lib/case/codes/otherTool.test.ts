import { describe, expect, it } from 'vitest';
import { bookOf, shippedPacks, type CodeBook } from '../../../../library/codes';
import { CodeDefinition, CodePack } from '../../../../library/codePack';
import { reasonModel } from '../../../../library/reason/model';
import { checkDescription } from '../../../../library/vehicle/check';
import { newDescription } from '../../../../library/vehicle/newDescription';
import { codeCalled } from '../../core/codes/spelling';
import { PROVE_FIRST } from '../../core/path/policy';
import { reasonAbout } from '../reason/reasoning';
import { standing } from '../thread/thread';
import { describeEntry } from '../thread/describe';
import { ThreadMaker } from '../thread/threads.fixture';
import { caseCodes } from './caseCodes';
import { readingTold, roleCalled, undescribedModules, writtenCodes, type ReadingTold } from './otherTool';

const made = newDescription({ template: 'car' });
if (!made.ok) throw new Error('no car');
const description = made.value;
const checked = checkDescription(description);
if (!checked.ok) throw new Error('no car');
const { type } = checked;

const told = (codes: string, change: Partial<ReadingTold> = {}): ReadingTold => ({
	tool: 'grey handheld',
	text: codes,
	testsRan: false,
	photos: [],
	modules: type.modules.map(({ role }) => ({
		role,
		said: role === 'brake' ? (codes === '' ? 'no-codes' : 'codes') : 'no-codes',
		codes: role === 'brake' ? codes : ''
	})),
	...change
});

/** A car on which the brake control told these codes. */
function carWith(codes: string): ThreadMaker {
	const maker = new ThreadMaker();
	maker.add('vehicle-described', { description, because: '' });
	const reading = readingTold(told(codes), type);
	if (!reading.ok) throw new Error(reading.error);
	maker.add('network-scan', reading.value);
	return maker;
}

const shopSays = (...definitions: Partial<CodeDefinition>[]): CodeBook =>
	bookOf([
		...shippedPacks,
		CodePack.parse({
			format: 'jaldi-code-pack',
			version: 1,
			id: 'shop',
			name: 'This shop',
			source: 'written here',
			date: '2026-11-30',
			definitions
		})
	]);

describe('codes as somebody writes them down at a module', () => {
	it.each([
		['C0035-14 active', 'C0035-14: active'],
		['SPN 789 FMI 5 OC 3 inactive', 'SPN 789 FMI 5 OC 3: inactive'],
		['01314 - no communication, sporadic', '01314 “no communication”: sporadic'],
		['480A12 Wheel sensor rear', '480A12 “Wheel sensor rear”'],
		['480a12', '480A12'],
		['= 480a12', '480A12'],
		['Wheel sensor, front left: no signal (present)', 'Wheel sensor, front left: no signal: present'],
		['Wheel sensor front left\n   stored', 'Wheel sensor front left: stored'],
		['C0045-13\n  pending', 'C0045-13: pending'],
		['C0045-13\nABS wheel sensor, stored', 'C0045-13 | ABS wheel sensor: stored'],
		['ABS: 01314 open', 'ABS: 01314 open'],
		['01314\n5DF0A stored\n\n---\n', '01314 | 5DF0A: stored'],
		['', '']
	])('%j → %s', (text, is) =>
		expect(
			writtenCodes(text)
				.map(({ code, words, told: beside }) =>
					[codeCalled(code) + (beside ? ` “${beside}”` : ''), words.join(', ')].filter(Boolean).join(': ')
				)
				.join(' | ')
		).toBe(is)
	);
});

describe('what a print-out calls a module', () => {
	it.each([
		['ABS / ESP', 'brake'],
		['Airbag', 'restraint'],
		['Electric parking brake', null],
		['Brake control', 'brake'],
		['Seat heating', null]
	])('%s: %s', (called, role) => expect(roleCalled(called, type)).toBe(role));

	it('is one that nobody described, where the vehicle is not known to have it', () => {
		expect(undescribedModules(['ABS', 'Electric parking brake', 'EPB', 'Seat heating'], type)).toEqual([
			{ role: 'park-brake', called: 'Electric parking brake' }
		]);
	});
});

describe('a reading in a maker’s own notation', () => {
	it('is on the case under its own name, with what the tool prints of it', () => {
		const { thread } = carWith('01314 - Wheel sensor open, present\nSPN 789 FMI 5 stored');
		expect(caseCodes(thread).map(({ text, called, title, corner }) => [text, called, title, corner])).toEqual(
			[
				['01314', '“Wheel sensor open”', null, null],
				['SPN 789 FMI 5', 'Wheel speed sensor, axle 1 left', 'Wheel speed sensor, axle 1 left', 'front-left']
			]
		);
		const scan = thread.at(-1);
		expect(scan && describeEntry(scan).detail).toContain('01314, SPN 789 FMI 5');
	});

	it('counts like any other once the shop has said what it means, with its kind of failure', () => {
		const { thread } = carWith('01314 - Wheel sensor open, present');
		const model = reasonModel(type);
		const about = (book: CodeBook) =>
			reasonAbout(standing(thread), model, {
				book,
				numberingOpen: [],
				codes: caseCodes(thread, book),
				policy: PROVE_FIRST
			});
		const at = (book: CodeBook, place: string) =>
			about(book).belief.present.reduce((sum, p, i) => sum + (model.faults[i]?.place === place ? p : 0), 0);
		const before = shopSays();
		const after = shopSays({
			code: '=01314',
			title: 'Rear left wheel sensor',
			group: 'wheel-speed',
			corner: 'rear-left',
			failureType: '13'
		});
		expect(at(before, 'rear-left')).toBeLessThan(0.5);
		expect(at(after, 'rear-left')).toBeGreaterThan(0.9);
		expect(caseCodes(thread, after)[0]).toMatchObject({
			title: 'Rear left wheel sensor',
			failureType: 'circuit open',
			corner: 'rear-left'
		});
	});

	it('goes the whole way to proven clear, by the same name each time', () => {
		const maker = carWith('01314 - Wheel sensor, present');
		const read = (codes: string, testsRan: boolean) => {
			const reading = readingTold(told(codes, { testsRan }), type);
			if (!reading.ok) throw new Error(reading.error);
			maker.add('network-scan', reading.value);
		};
		const clear = () =>
			maker.add('codes-cleared', {
				keyCycles: null,
				modules: type.modules.map(({ address, name }) => ({
					address,
					name,
					outcome: 'cleared' as const,
					detail: null
				})),
				otherTool: { tool: 'grey handheld' }
			});
		const verdict = () => caseCodes(maker.thread).map(({ text, proof }) => `${text} ${proof.verdict}`);
		expect(verdict()).toEqual(['01314 never-cleared']);
		maker.repair();
		clear();
		maker.cycleKey();
		read('01314 present', false);
		expect(verdict()).toEqual(['01314 back-at-key-on']);
		maker.repair();
		clear();
		maker.cycleKey().lamps();
		read('', false);
		expect(verdict()).toEqual(['01314 test-not-run']);
		maker.drive();
		read('', true);
		expect(verdict()).toEqual(['01314 proven-clear']);
	});

	it('is refused where nothing in it could be a code', () => {
		const reading = readingTold(told('---'), type);
		expect(reading.ok ? '' : reading.error).toBe('Brake control: no code is understood in it.');
	});
});
