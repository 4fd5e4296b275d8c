import { describe, expect, it } from 'vitest';
import { codeSources } from '../src/lib/case/codes/codeSources';
import { conditionDepth, signalsOf, type Condition } from '../src/lib/core/conditions/condition';
import { ConditionWatch } from '../src/lib/core/conditions/conditionWatch';
import { bookOf, shippedBook, shippedPacks, sourcesFor, titleSource } from './codes';
import { failureCategory, failureMode, failureType, isAssigned } from './failureTypes';
import { vehicleTypes } from './index';
import { packAsCsv, packAsJson, packJsonSchema, parsePackFile } from './packFile';
import { sayCondition, signals } from './signals';

const standard = shippedPacks.filter((pack) => pack.maker === null);

describe('the shipped code library', () => {
	it('names at least 250 standard codes, each with its place, its causes and words of its own', () => {
		const codes = new Set(standard.flatMap((pack) => pack.definitions.map((d) => d.code)));
		expect(codes.size).toBeGreaterThanOrEqual(250);
		// Parameters of heavy vehicles are named only: each failure mode has words of its own.
		const described = shippedPacks.filter(({ id }) => id !== 'heavy-parameters');
		for (const { definitions } of described)
			for (const d of definitions) expect(d.causes.length, `${d.code} says no cause`).toBeGreaterThan(0);
	});

	it('speaks only of signals that exist, and every condition reads as a sentence', () => {
		for (const d of shippedPacks.flatMap((pack) => pack.definitions)) {
			for (const condition of [d.setConditions, d.testConditions]) {
				if (!condition) continue;
				for (const signal of signalsOf(condition)) expect(signals.has(signal), signal).toBe(true);
				expect(sayCondition(condition)).not.toMatch(/undefined|NaN|_/);
				expect(conditionDepth(condition)).toBeLessThanOrEqual(6);
			}
		}
	});

	it('sets no code on a vehicle that is well, and sees both directions', () => {
		// Standing, driving straight, braking hard, turning either way: everything as it should be.
		const well: Record<string, number>[] = [
			{ vehicle: 0, brake_switch: 0, brake_pressure: 0, steering: 0, yaw: 0, lateral: 0 },
			{ vehicle: 80, brake_switch: 0, brake_pressure: 0, steering: 0, yaw: 0, lateral: 0 },
			{ vehicle: 80, brake_switch: 1, brake_pressure: 4000, steering: 0, yaw: 0, lateral: 0 },
			{ vehicle: 30, brake_switch: 0, brake_pressure: 0, steering: 120, yaw: 14, lateral: 0.2 },
			{ vehicle: 30, brake_switch: 0, brake_pressure: 0, steering: -120, yaw: -14, lateral: -0.2 }
		];
		const rest = {
			supply: 13.8,
			key_on: 1,
			pump_running: 0,
			pump_asked_for: 0,
			speed_valid: 1,
			message_age: 0.02
		};
		const sets = (definition: { setConditions: Condition | null }, values: Record<string, number>) => {
			if (!definition.setConditions) return false;
			const watch = new ConditionWatch(definition.setConditions);
			const wheels = Object.fromEntries(
				['front_left', 'front_right', 'rear_left', 'rear_right'].map((wheel) => [
					wheel,
					values['vehicle'] ?? 0
				])
			);
			const now: Record<string, number> = { ...rest, ...wheels, ...values };
			let met = false;
			for (let s = 0; s <= 60; s++) met = watch.sample(s, (name) => now[name] ?? null) === 'met' || met;
			return met;
		};
		for (const { definitions } of standard)
			for (const d of definitions) for (const values of well) expect(sets(d, values), d.code).toBe(false);
		const turned = standard
			.flatMap(({ definitions }) => definitions)
			.filter(({ group, setConditions }) => ['yaw', 'steering-angle'].includes(group) && setConditions);
		expect(turned.length).toBeGreaterThan(2);
		for (const d of turned)
			for (const sign of [1, -1])
				expect(
					sets(d, { vehicle: 0, yaw: 8 * sign, lateral: 0.6 * sign, steering: 0 }) ||
						sets(d, { vehicle: 40, yaw: 0, lateral: 0, steering: 200 * sign, brake_switch: 0 }),
					`${d.code} ${sign}`
				).toBe(true);
	});

	it('marks conditions that no standard gives as ours', () => {
		for (const pack of standard) expect(pack.conditions, pack.id).toBe('typical');
		const { sources } = codeSources(shippedBook, { code: 'C0110', failureType: null, maker: null });
		expect(sources[0]?.setWhen).toMatch(/typical, not of a standard/);
	});

	it('has each maker’s words for vehicles of that maker only', () => {
		expect(titleSource(shippedBook, { code: 'C1A45' })).toBeNull();
		expect(titleSource(shippedBook, { code: 'C1A45', maker: 'Brindle' })?.corner).toBe('rear-left');
		expect(titleSource(shippedBook, { code: 'C1A45', maker: 'Norvane' })).toBeNull();
		const makers = new Set([...vehicleTypes.values()].map((type) => type.maker));
		for (const { maker } of shippedPacks) if (maker) expect(makers).toContain(maker);
	});

	it('keeps sources that disagree beside each other, the closest first', () => {
		const titles = (maker: string | null) =>
			sourcesFor(shippedBook, { code: 'C0045', failureType: '13', maker }).map(
				(d) => `${d.pack.id}: ${d.title}`
			);
		expect(titles(null)).toEqual([
			'circuit-numbering: Rear-left wheel speed sensor circuit',
			'chassis-table: Brake pressure sensor B'
		]);
		expect(titles('Brindle')[0]).toBe('maker-brindle: Rear-left wheel speed circuit open');
	});
});

describe('kinds of failure', () => {
	it('every byte has a meaning, also the ones the standard left open', () => {
		for (let byte = 0; byte < 256; byte++) {
			const kind = failureType(byte.toString(16).toUpperCase().padStart(2, '0'));
			expect([kind.text, kind.class, kind.meaning, kind.checkFirst].every((words) => words.length > 2)).toBe(
				true
			);
		}
		expect(
			[0xa0, 0x0f, 0xef].map((b) => failureType(b.toString(16).toUpperCase().padStart(2, '0')).class)
		).toEqual(['reserved', 'reserved', 'reserved']);
		expect(failureType('F3').class).toBe('maker');
		expect(isAssigned('13')).toBe(true);
		expect(failureCategory('87')).toBe('bus message failures');
	});

	it.each([
		['11', 'short-to-ground'],
		['12', 'short-to-supply'],
		['13', 'open'],
		['1B', 'high-resistance'],
		['2F', 'erratic'],
		['31', 'no-signal'],
		['49', 'internal'],
		['54', 'calibration'],
		['55', 'configuration'],
		['64', 'implausible'],
		['81', 'invalid-data'],
		['87', 'message-missing']
	])('%s is %s', (byte, kind) => {
		expect(failureType(byte).class).toBe(kind);
	});

	it('modes of heavy vehicles are 0 to 31', () => {
		for (let fmi = 0; fmi < 32; fmi++) expect(failureMode(fmi).text.length).toBeGreaterThan(3);
		expect(() => failureMode(32)).toThrow(RangeError);
	});
});

describe('pack files', () => {
	const [pack] = shippedPacks.filter((p) => p.id === 'maker-brindle');
	if (!pack) throw new Error('no pack');

	it('come back from JSON and from CSV as they were written', () => {
		expect(parsePackFile(packAsJson(pack))).toEqual({ ok: true, value: pack });
		expect(parsePackFile(packAsCsv(pack))).toEqual({ ok: true, value: pack });
		expect(parsePackFile(packAsCsv(pack).replaceAll('\n', '\r\n'))).toEqual({ ok: true, value: pack });
	});

	const json = (change: (text: string) => string) => parsePackFile(change(packAsJson(pack)));
	it.each([
		['not whole', json((t) => t.slice(0, 400)), /not valid JSON/],
		[
			'a wrong code',
			json((t) => t.replace('"C0040"', '"C4040"')),
			/definitions\.2\.code: A code is a letter/
		],
		['a key nobody knows', json((t) => t.replace('"group"', '"grup"')), /definitions\.0/],
		[
			'the same code twice',
			json((t) => t.replaceAll('"C0040"', '"C0035"')),
			/C0035-13 is defined twice, first in line 11/
		],
		['empty', parsePackFile(' \n'), /empty/],
		['binary', parsePackFile('PK\0\0'), /binary/]
	])('%s: refused whole, with line and reason', (_, parsed, reason) => {
		if (parsed.ok) throw new Error('taken');
		expect(parsed.error.reason).toMatch(reason);
		expect(parsed.error.line).toBeGreaterThan(0);
	});

	it('the line is the line of the fault', () => {
		const text = packAsJson(pack);
		const at = text.split('\n').findIndex((line) => line.includes('"C0045"')) + 1;
		const refused = parsePackFile(text.replace('"C0045"', '"X"'));
		expect(!refused.ok && refused.error.line).toBe(at);
		const rows = packAsCsv(pack).split('\n');
		rows[4] = (rows[4] ?? '').replace('tone-ring', 'tonering');
		const row = parsePackFile(rows.join('\n'));
		expect(!row.ok && row.error).toMatchObject({ line: 5, reason: expect.stringMatching(/^group/) });
	});

	it('a table without its columns is refused', () => {
		const refused = parsePackFile('code,title\nC0035,x\n');
		expect(!refused.ok && refused.error).toEqual({
			line: 1,
			reason: 'missing column pack_id, pack_name, source, date, group'
		});
	});

	it('the published schema names what a definition must have', () => {
		const schema = JSON.stringify(packJsonSchema());
		for (const word of ['jaldi-code-pack', 'setConditions', 'hysteresis', 'wheel-speed'])
			expect(schema).toContain(word);
	});

	it('a book of packs gives what each says', () => {
		expect(bookOf([pack]).definitions('C1A60')).toHaveLength(1);
		expect(bookOf([]).definitions('C1A60')).toEqual([]);
	});
});
