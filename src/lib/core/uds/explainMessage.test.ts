import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseHexBytes } from '../bytes';
import { explainMessage, type IdentifierLookup } from './explainMessage';

const SPEED = { name: 'vehicle speed', as: 'number', bytes: 1, scale: 1, unit: 'km/h', decimals: 0 } as const;
const lookup: IdentifierLookup = (id) => (id === 'F40D' ? SPEED : null);
const explain = (text: string) => {
	const bytes = parseHexBytes(text);
	if (!bytes.ok) throw new Error(text);
	return explainMessage(bytes.value, lookup).map((f) => `${f.name}: ${f.text}`);
};

describe('a diagnostic message, byte by byte', () => {
	it.each([
		[
			'19 02 FF',
			['service: read code information', 'part of the service: codes by status', 'status wanted: every bit']
		],
		[
			'59 02 FF 40 35 14 2F',
			[
				'service: answer to: read code information',
				'part of the service: codes by status',
				'status the module can tell: every bit',
				'code: C0035-14',
				'status: failing now, confirmed'
			]
		],
		[
			'59 04 40 35 14 28 01 01 F4 0D 2A',
			[
				'service: answer to: read code information',
				'part of the service: snapshot of a code',
				'code: C0035-14',
				'status: stored, not failing now',
				'record: number 1',
				'values in it: 1',
				'identifier: F40D, vehicle speed',
				'vehicle speed: 42 km/h'
			]
		],
		[
			'22 F4 0D F1 90',
			['service: read data', 'identifier: F40D, vehicle speed', 'identifier: F190, not described']
		],
		[
			'62 F4 0D 00',
			['service: answer to: read data', 'identifier: F40D, vehicle speed', 'vehicle speed: 0 km/h']
		],
		[
			'7F 19 31',
			[
				'refusal: the module does not do what it was asked',
				'service asked for: read code information',
				'reason: does not hold what was asked for'
			]
		],
		['14 FF FF FF', ['service: clear codes', 'which codes: every code']],
		['3E 80', ['service: keep session alive', 'part of the service: part 00; no answer wanted']],
		[
			'59 02 FF 40 35',
			[
				'service: answer to: read code information',
				'part of the service: codes by status',
				'status the module can tell: every bit',
				'cut: not a whole record: 40 35'
			]
		]
	])('%s', (text, fields) => {
		expect(explain(text)).toEqual(fields);
	});

	it('names every byte once, in order, whatever the bytes', () => {
		fc.assert(
			fc.property(
				fc.uint8Array({ maxLength: 60 }),
				fc.constantFrom(0x19, 0x59, 0x22, 0x62, 0x2e, 0x7f, 0x31),
				(bytes, first) => {
					const message = Uint8Array.of(first, ...bytes);
					let at = 0;
					for (const field of explainMessage(message, lookup)) {
						expect(field.from).toBe(at);
						at += field.length;
					}
					expect(at).toBe(message.length);
				}
			)
		);
	});
});
