import fc from 'fast-check';
import { parsePackFile, packAsCsv, packAsJson } from '../library/packFile';
import { shippedPacks } from '../library/codes';
import { BusAnalysis } from '../src/lib/core/bus/analyseLog';
import { parseHexBytes } from '../src/lib/core/bytes';
import { decodeDiagnosticMessage } from '../src/lib/core/codes/diagnosticMessage';
import { findCodes } from '../src/lib/core/codes/findCodes';
import { formatSpelling, parseSpelling } from '../src/lib/core/codes/spelling';
import { Condition } from '../src/lib/core/conditions/condition';
import { evaluateCondition } from '../src/lib/core/conditions/conditionWatch';
import { codesInResponse } from '../src/lib/core/uds/codesInResponse';
import { explainMessage } from '../src/lib/core/uds/explainMessage';

/**
 * What every parser of things from outside must do with anything at all: come back, with a value or an error, and read
 * nothing but its input. `npm run fuzz` tries each with a hundred thousand inputs and more; the tests with some hundreds.
 */
export interface Fuzzed {
	name: string;
	property: fc.IProperty<[never]> | fc.IProperty<unknown>;
}

const expect = (truth: boolean, words: string): void => {
	if (!truth) throw new Error(words);
};

/** A slip of the keyboard here and there in something that is right. */
const damaged = (whole: fc.Arbitrary<string>): fc.Arbitrary<string> =>
	fc
		.tuple(
			whole,
			fc.array(fc.tuple(fc.nat(), fc.constantFrom('', '\0', 'Z', '"', '\n', '#', '0', '-', '😀')), {
				maxLength: 4
			})
		)
		.map(([text, slips]) =>
			slips.reduce((now, [at, sign]) => {
				const place = now.length === 0 ? 0 : at % now.length;
				return now.slice(0, place) + sign + now.slice(place + 1);
			}, text)
		);

const anyText = fc.string({ unit: 'binary', maxLength: 60 });
const spelling = fc.oneof(
	anyText,
	damaged(
		fc.constantFrom(
			'C0045-13/2F',
			'403514',
			'0x4035',
			'SPN 789 FMI 5 OC 3',
			'789/5',
			'lamp 3-4',
			'59 02 FF 40 35 14 2F',
			'DM1 04 FF 15 03 05 03'
		)
	),
	fc.stringMatching(/^[PCBU0-9A-Fx/: -]{0,40}$/)
);

const frameLine = fc
	.tuple(
		fc.double({ min: 0, max: 5, noNaN: true }),
		fc.constantFrom('7E0', '7E8', '7DF', '18DA10F1', '18DAF110', '18FECA0B', '1CECFF0B', '1CEBFF0B', '123'),
		fc.uint8Array({ maxLength: 8 })
	)
	.map(([time, id, data]) => `(${time.toFixed(6)}) bus0 ${id}#${Buffer.from(data).toString('hex')}`);
const frameLog = damaged(fc.array(frameLine, { maxLength: 12 }).map((lines) => lines.join('\n')));

const printOut = damaged(
	fc
		.array(
			fc.constantFrom(
				'C0045-13',
				'Status: 2F',
				'stored',
				'\n',
				'Brake control',
				' : 12 km/h',
				'|',
				'\t',
				'SPN 789 FMI 5',
				'59 02 FF 40 35 14 2F',
				'- ',
				'Vehicle speed'
			),
			{ maxLength: 20 }
		)
		.map((pieces) => pieces.join(' '))
);

const smallPack = { ...shippedPacks[4]!, definitions: shippedPacks[4]!.definitions.slice(0, 2) };
const packText = damaged(fc.constantFrom(packAsJson(smallPack), packAsCsv(smallPack)));

/** The same bytes alone, and in the middle of others: what is beside the input must change nothing. */
function readsOnlyItsInput<T>(bytes: Uint8Array, read: (bytes: Uint8Array) => T): T {
	const around = new Uint8Array(bytes.length + 32).fill(0x59);
	around.set(bytes, 16);
	const alone = read(bytes);
	const within = read(around.subarray(16, 16 + bytes.length));
	expect(JSON.stringify(alone) === JSON.stringify(within), 'it read past its input');
	return alone;
}

const operand = fc.oneof(
	fc.record({ kind: fc.constant('signal'), signal: fc.constantFrom('vehicle', 'yaw', 'UP') }),
	fc.record({ kind: fc.constant('value'), value: fc.double() }),
	fc.record({ kind: fc.constant('share'), percent: fc.integer(), of: fc.constant('vehicle') })
);
const { condition } = fc.letrec((tie) => ({
	condition: fc.oneof(
		{ maxDepth: 4, depthIdentifier: 'condition' },
		fc.record({
			kind: fc.constant('compare'),
			left: operand,
			is: fc.constantFrom('above', 'below', 'equal', 'near'),
			right: operand
		}),
		fc.record({ kind: fc.constantFrom('all', 'any'), of: fc.array(tie('condition'), { maxLength: 3 }) }),
		fc.record({ kind: fc.constantFrom('not', 'held'), forS: fc.double(), of: tie('condition') })
	)
}));

export const FUZZED: Fuzzed[] = [
	{
		name: 'spellings of codes',
		property: fc.property(spelling, (text) => {
			const spelled = parseSpelling(text);
			if (!spelled.ok)
				return expect(
					spelled.error.at >= 0 && spelled.error.at <= text.length,
					'a place outside of the text'
				);
			for (const code of spelled.value.codes) {
				const again = parseSpelling(formatSpelling(code));
				expect(
					again.ok &&
						JSON.stringify(again.value.codes[0]) ===
							JSON.stringify({ ...code, ...(code.kind === 'j1939' ? { conversion: 0 } : {}) }),
					'not the same when written and read again'
				);
			}
		})
	},
	{
		name: 'codes in text',
		property: fc.property(fc.oneof(anyText, printOut), (text) => {
			const found = findCodes(text);
			expect(found.lines.map((l) => l.text).join('\n') === text.replace(/\r\n|\r/g, '\n'), 'a line was lost');
			for (const { text: row, spans } of found.lines)
				for (const { from, to } of spans)
					expect(from >= 0 && from <= to && to <= row.length, 'a span outside of its line');
		})
	},
	{
		name: 'frame logs',
		property: fc.property(
			fc.oneof(
				fc.uint8Array({ maxLength: 200 }),
				frameLog.map((t) => new TextEncoder().encode(t))
			),
			fc.integer({ min: 1, max: 50 }),
			(bytes, size) => {
				const read = (input: Uint8Array, step: number) => {
					const analysis = new BusAnalysis();
					for (let at = 0; at < input.length; at += step) analysis.push(input.subarray(at, at + step));
					analysis.end();
					expect(analysis.frames + analysis.badLineCount <= analysis.lineCount, 'more frames than lines');
					return {
						exchanges: [...analysis.exchanges],
						modules: analysis.modules,
						bad: analysis.badLines,
						problems: analysis.problems
					};
				};
				const whole = readsOnlyItsInput(bytes, (input) => read(input, Math.max(1, input.length)));
				expect(
					JSON.stringify(whole) === JSON.stringify(read(bytes, size)),
					'pieces read otherwise than the whole'
				);
			}
		)
	},
	{
		name: 'answers that list codes',
		property: fc.property(
			fc.uint8Array({ maxLength: 40 }),
			fc.constantFrom(0x59, 0x43, 0x47, 0x7f),
			fc.nat(0xff),
			(rest, service, sub) => {
				readsOnlyItsInput(Uint8Array.of(service, sub, ...rest), codesInResponse);
			}
		)
	},
	{
		name: 'messages of heavy vehicles',
		property: fc.property(fc.uint8Array({ maxLength: 40 }), (bytes) => {
			readsOnlyItsInput(bytes, decodeDiagnosticMessage);
		})
	},
	{
		name: 'messages byte by byte',
		property: fc.property(fc.uint8Array({ maxLength: 40 }), (bytes) => {
			const fields = readsOnlyItsInput(bytes, (input) => explainMessage(input, () => null));
			expect(fields.reduce((sum, field) => sum + field.length, 0) === bytes.length, 'a byte without a name');
		})
	},
	{
		name: 'bytes in hex',
		property: fc.property(fc.oneof(anyText, fc.stringMatching(/^[0-9A-Fx ,]{0,30}$/)), (text) => {
			const parsed = parseHexBytes(text);
			if (!parsed.ok) expect(parsed.error.at <= text.length, 'a place outside of the text');
		})
	},
	{
		name: 'pack files',
		property: fc.property(
			fc.oneof({ arbitrary: anyText, weight: 2 }, { arbitrary: packText, weight: 1 }),
			(text) => {
				const parsed = parsePackFile(text);
				if (!parsed.ok)
					expect(
						parsed.error.line >= 1 && parsed.error.reason.length > 0,
						'refused without a line or a reason'
					);
			}
		)
	},
	{
		name: 'set conditions',
		property: fc.property(condition, fc.array(fc.option(fc.double()), { maxLength: 8 }), (raw, values) => {
			const parsed = Condition.safeParse(raw);
			if (!parsed.success) return;
			const samples = values.map((value, i) => ({ timeS: i / 4, values: { vehicle: value, yaw: value } }));
			const { metS, intervals } = evaluateCondition(parsed.data, samples);
			expect(metS >= 0 && intervals.every((i) => i.endS >= i.startS), 'an interval that runs backwards');
		})
	}
] as Fuzzed[];
