import { z } from 'zod';
import codesFile from './codes/wheel-speed-and-network.json' with { type: 'json' };
import failureTypesFile from './failure-types.json' with { type: 'json' };
import identifiersFile from './identifiers.json' with { type: 'json' };
import testConditionsFile from './test-conditions.json' with { type: 'json' };
import marlow from './vehicles/brindle-marlow-16.json' with { type: 'json' };
import heath from './vehicles/norvane-heath.json' with { type: 'json' };
import lichen from './vehicles/norvane-lichen.json' with { type: 'json' };
import pip from './vehicles/ottaro-pip.json' with { type: 'json' };
import skiff from './vehicles/velmora-skiff.json' with { type: 'json' };

/** Shipped reference data, checked the moment it is loaded: a wrong file stops the build, not a technician. */

export const POSITIONS = ['front-left', 'front-right', 'rear-left', 'rear-right'] as const;
export const Position = z.enum(POSITIONS);
export type Position = z.infer<typeof Position>;

const CodeDefinition = z.object({
	code: z.string().regex(/^[PCBU][0-3][0-9A-F]{3}$/),
	title: z.string().min(1),
	corner: Position.nullable(),
	path: z.enum(['wheel-speed', 'steering-angle', 'network'])
});
export type CodeDefinition = z.infer<typeof CodeDefinition>;

const FailureType = z.object({
	byte: z.string().regex(/^[0-9A-F]{2}$/),
	text: z.string(),
	class: z.string()
});
export type FailureType = z.infer<typeof FailureType>;

/** What must happen before a code's monitor completes, in words. */
const TestCondition = z.object({
	path: CodeDefinition.shape.path,
	failureType: FailureType.shape.byte,
	needs: z.string().min(1)
});

const identifierBase = {
	id: z.string().regex(/^[0-9A-F]{4}$/),
	name: z.string(),
	bytes: z.number().int().positive()
};
const Identifier = z.discriminatedUnion('as', [
	z.object({ ...identifierBase, as: z.literal('text') }),
	z.object({
		...identifierBase,
		as: z.enum(['number', 'signed']),
		scale: z.number(),
		unit: z.string(),
		decimals: z.number().int(),
		/** The raw value that stands for "not available". */
		invalid: z.string().optional()
	})
]);
export type Identifier = z.infer<typeof Identifier>;

const Address = z.string().regex(/^[0-9A-F]{4}$/);
const MODULE_ROLES = ['gateway', 'brake', 'steering-angle', 'cluster'] as const;
const VehicleType = z.object({
	id: z.string(),
	maker: z.string(),
	model: z.string(),
	use: z.string(),
	gateway: Address,
	modules: z.array(z.object({ role: z.enum(MODULE_ROLES), name: z.string(), address: Address })).min(1),
	wheels: z.array(
		z.object({
			position: Position,
			ringTeeth: z.number().int().positive(),
			circumferenceM: z.number().positive()
		})
	),
	senseResistorOhms: z.number().positive()
});
export type VehicleType = z.infer<typeof VehicleType>;

const byKey = <T, K extends keyof T>(items: T[], key: K) => new Map(items.map((item) => [item[key], item]));

export const codeDefinitions = byKey(z.array(CodeDefinition).parse(codesFile.codes), 'code');
export const failureTypes = byKey(z.array(FailureType).parse(failureTypesFile.types), 'byte');
export const identifiers = byKey(z.array(Identifier).parse(identifiersFile.identifiers), 'id');
export const testConditions = z.array(TestCondition).parse(testConditionsFile.conditions);
export const vehicleTypes = byKey(z.array(VehicleType).parse([marlow, lichen, skiff, pip, heath]), 'id');
