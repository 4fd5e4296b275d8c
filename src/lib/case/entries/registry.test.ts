import fc from 'fast-check';
import { readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { anyPayloadOf } from '../thread/anyEntry.fixture';
import { caseCodes } from '../codes/caseCodes';
import type { PayloadOf } from './entry';
import { begun, COMES_AND_GOES, type ProofThread } from '../proof/proof.fixture';
import { BRAKE, OPEN } from '../thread/threads.fixture';
import { THREAD_GROUPS } from './kind';
import { ENTRY_KINDS, featureOf, kindsWhere, PAYLOADS, type EntryKind } from './registry';

describe('kinds of entries', () => {
	it('every folder is a kind, and every kind has a folder of its name', () => {
		const folders = readdirSync('src/lib/case/entries', { withFileTypes: true })
			.filter((one) => one.isDirectory())
			.map(({ name }) => name);
		expect([...ENTRY_KINDS].sort()).toEqual(folders.sort());
	});

	it.each(ENTRY_KINDS)('%s: is found under one heading, and any payload of it has a line', (kind) => {
		const { group, about, line } = featureOf(kind);
		expect(THREAD_GROUPS).toContain(group);
		expect(about).toMatch(/^[A-Z].*\.$/);
		fc.assert(
			fc.property(anyPayloadOf(kind), (payload) => {
				expect(PAYLOADS[kind].safeParse(payload).success).toBe(true);
				expect(line(payload).title).toEqual(expect.any(String));
			}),
			{ numRuns: 20, seed: 21 }
		);
	});

	it.each(kindsWhere(({ changesVerdicts }) => !changesVerdicts))(
		'%s: never changes what is said of a code',
		(kind: EntryKind) => {
			const verdicts = ({ thread }: ProofThread) =>
				caseCodes(thread).map(({ address, dtc, proof }) => `${address}/${dtc} ${proof.verdict}`);
			for (const stage of STAGES) {
				const before = verdicts(stage());
				fc.assert(
					fc.property(anyPayloadOf(kind), (payload) => {
						const maker = stage();
						maker.add(kind, payload as PayloadOf<typeof kind>);
						expect(verdicts(maker)).toEqual(before);
					}),
					{ numRuns: 30, seed: 21 }
				);
			}
		}
	);
});

/** Every place in a schema at which a code is named, by its path. */
function codesNamedIn(schema: z.core.$ZodType, path = ''): { path: string; schema: z.ZodType }[] {
	const { def } = (schema as unknown as { _zod: { def: Record<string, unknown> } })._zod;
	const inner = ['innerType', 'element', 'valueType'].flatMap((key) => (def[key] as z.core.$ZodType) ?? []);
	const options = (def['options'] as z.core.$ZodType[] | undefined) ?? [];
	const shape = Object.entries((def['shape'] as Record<string, z.ZodType> | undefined) ?? {});
	return [
		...shape.flatMap(([key, value]) =>
			key === 'dtc' ? [{ path: `${path}.${key}`, schema: value }] : codesNamedIn(value, `${path}.${key}`)
		),
		...[...inner, ...options].flatMap((one) => codesNamedIn(one, path))
	];
}

describe('a code that an entry names', () => {
	const places = ENTRY_KINDS.flatMap((kind) => codesNamedIn(PAYLOADS[kind], kind));
	it('is looked for in every kind', () => expect(places.length).toBeGreaterThan(4));
	// What a module can set at all only our own link reads.
	it.each(places.filter(({ path }) => path !== 'network-scan.modules.supported.dtc'))(
		'$path may be of any family',
		({ schema }) => {
			for (const id of ['403514', 'SPN 789 FMI 5', '=01314', '=left/right differ'])
				expect(schema.safeParse(id).success, id).toBe(true);
			for (const id of ['', '4035', 'SPN 789', '=']) expect(schema.safeParse(id).success, id).toBe(false);
		}
	);
});

const opened = { vehicleId: 'v', typeId: 'norvane-heath', name: 'ambulance', plate: 'TP 1' };
/** A case at several places of its way: read, mended and cleared, driven, proven, and one that comes and goes. */
const STAGES: (() => ProofThread)[] = [
	() => begun(),
	() => begun().proving(),
	() => read(begun().proving(), 0x50),
	() => read(begun().proving().recording(), 0x00),
	() => read(begun(COMES_AND_GOES).told(3, 30).proving().driven(5), 0x00)
].map((stage) => () => {
	const maker = stage();
	maker.add('case-opened', opened);
	return maker;
});

function read(maker: ProofThread, status: number): ProofThread {
	maker.scan([[BRAKE, OPEN, status]]);
	return maker;
}
