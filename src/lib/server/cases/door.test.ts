import { ulid } from 'ulid';
import { describe, expect, it } from 'vitest';
import type { EntryKind, PayloadOf } from '../../case/entries/entry';
import { unknownId } from '../../case/thread/unknownIds';
import { vehicleTypes } from '../../../../library';

const type = vehicleTypes.get('brindle-marlow-16') ?? null;
const refused = <K extends EntryKind>(kind: K, payload: object) =>
	unknownId(kind, payload as PayloadOf<K>, type);

describe('what a new entry names', () => {
	it('is known to the library, whatever it is called', () => {
		expect(refused('meter-reading', { measurement: 'constructor', position: null })).toContain('constructor');
		expect(refused('inspection', { inspection: 'no-such-look', position: 'rear-left' })).toContain(
			'inspection'
		);
		expect(refused('test-step', { test: 'toString', seen: {} })).toContain('test');
		expect(refused('test-step', { test: null, seen: { '__proto__x@rear-left': 'yes' } })).toContain('sign');
		expect(refused('fitting', { sheet: 'valueOf' })).toContain('fitting sheet');
		expect(refused('repair', { does: { kind: 'hasOwnProperty', place: '' } })).toContain('repair');
		expect(refused('inspection', { inspection: 'gap', position: 'rear-left' })).toBeNull();
		expect(refused('note', { text: ulid() })).toBeNull();
	});

	it('is a wheel that this vehicle has', () => {
		const round = (position: string) => refused('wheel-round', { corners: [{ position }] });
		expect(round('axle3-left')).toContain('no wheel');
		expect(round('rear-left')).toBeNull();
		const checked = (position: string) => refused('speed-checked', { wheels: [{ position, kmh: 50 }] });
		expect(checked('axle3-left')).toContain('no wheel');
		expect(checked('rear-left')).toBeNull();
		expect(refused('prior-work', { works: [{ part: 'Hub', position: 'axle2-left' }] })).toContain('no wheel');
		expect(refused('prior-work', { works: [{ part: 'Hub' }] })).toBeNull();
		expect(refused('swap', { position: 'rear-left', with: 'axle3-left' })).toContain('no wheel');
		expect(refused('swap', { position: 'rear-left', with: 'rear-right' })).toBeNull();
		expect(refused('swap', { position: 'rear-left', with: null })).toBeNull();
		expect(refused('swap', { position: 'rear-left', with: 'rear-left' })).toContain('another one');
	});
});
