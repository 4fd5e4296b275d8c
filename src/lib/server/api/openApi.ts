import { z } from 'zod';
import { PERMISSIONS, type Permission, type Scope } from '../gate/permissions';
import { JSON_MEDIA, type ApiMethod, type ApiRoute } from './apiRoute';

/** A page's folder → the path as the protocol has it: `/cases/[id]/entries` → `/cases/{id}/entries`. */
export const pathOf = (folder: string): string =>
	folder.replace(/\/\([^)]*\)/g, '').replace(/\[([^\]]+)\]/g, '{$1}');

const parametersIn = (path: string) =>
	[...path.matchAll(/\{([^}]+)\}/g)].map(([, name]) => ({
		name,
		in: 'path',
		required: true,
		schema: { type: 'string' }
	}));

/** What is refused, and why. Every answer of this kind has a sentence for a person. */
const REFUSALS = {
	anybody: [],
	locked: ['401'],
	member: ['401', '404'],
	desk: ['400', '401', '403', '404', '409', '413'],
	writer: ['400', '401', '403', '404', '409', '413'],
	lead: ['400', '401', '403', '404', '413']
};
const refusalsOf = (who: Permission): string[] => REFUSALS[typeof who === 'string' ? who : 'lead'];

/** Whoever may sign in, and programs where a token may be made for it. */
const securityOf = (who: Permission, scope: Scope | undefined) =>
	who === 'anybody' ? { security: [] } : scope ? { security: [{ session: [] }, { token: [scope] }] } : {};
const REFUSAL_WORDS: Record<string, string> = {
	'400': 'What was sent is not what is taken here.',
	'401': 'Nobody is signed in.',
	'403': 'It is not for this person to do.',
	'404': 'There is no such thing.',
	'409': 'It cannot be done as things stand: the case is signed, the id is taken, the vehicle is at work.',
	'413': 'It is more than may come here.'
};

function operationOf(folder: string, method: 'GET' | 'POST' | 'PUT', of: ApiMethod) {
	const { says, query, takes, gives } = of;
	const path = pathOf(folder);
	const row = PERMISSIONS[folder];
	const who = row?.[method] ?? 'member';
	const refusal = (status: string) => ({
		description: REFUSAL_WORDS[status],
		content: { [JSON_MEDIA]: { schema: { $ref: '#/components/schemas/Refusal' } } }
	});
	return {
		summary: says,
		...securityOf(who, row?.token?.[method]),
		parameters: [
			...parametersIn(path),
			...Object.entries(query ?? {}).map(([name, description]) => ({
				name,
				in: 'query',
				required: false,
				description,
				schema: { type: 'string' }
			}))
		],
		...(takes ? { requestBody: { required: true, content: contentOf(takes) } } : {}),
		responses: {
			'200': {
				description: gives.says,
				content: { [gives.media]: gives.media === JSON_MEDIA ? { schema: {} } : {} }
			},
			...Object.fromEntries(refusalsOf(who).map((status) => [status, refusal(status)]))
		}
	};
}

const contentOf = (takes: NonNullable<ApiMethod['takes']>) =>
	'media' in takes
		? { [takes.media]: { schema: { type: 'string', format: 'binary', description: takes.says } } }
		: { [JSON_MEDIA]: { schema: jsonSchemaOf(takes) } };

/** The schema of what is sent, without the line that says which draft it is of: OpenAPI 3.1 says that itself. */
function jsonSchemaOf(schema: z.ZodType): object {
	const { $schema: _, ...rest } = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' });
	return rest;
}

/** The HTTP interface as one OpenAPI 3.1 document. @param routes by the folder of each */
export const openApi = (routes: ReadonlyMap<string, ApiRoute>, origin: string) => ({
	openapi: '3.1.0',
	info: {
		title: 'Jaldi',
		version: '1',
		description:
			'What the pages of Jaldi ask for, and what other programs may: evidence is added to the thread of a case, and read from it. Ids are ULIDs made by whoever writes, so that sending twice stores once.'
	},
	servers: [{ url: origin }],
	security: [{ session: [] }],
	paths: Object.fromEntries(
		[...routes]
			.map(([folder, route]) => {
				const path = pathOf(folder);
				const operations = Object.entries(route).map(([method, one]) => [
					method.toLowerCase(),
					operationOf(folder, method as 'GET' | 'POST' | 'PUT', one)
				]);
				return [path, Object.fromEntries(operations)] as const;
			})
			.sort(([a], [b]) => a.localeCompare(b))
	),
	components: {
		securitySchemes: {
			session: { type: 'apiKey', in: 'cookie', name: 'jaldi.session_token' },
			token: { type: 'http', scheme: 'bearer', description: 'A token that a lead made for a program.' }
		},
		schemas: {
			Refusal: {
				type: 'object',
				properties: { message: { type: 'string', description: 'A sentence for a person.' } },
				required: ['message']
			}
		}
	}
});
