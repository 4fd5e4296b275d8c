import { describe, expect, it } from 'vitest';
import { fail, ok } from '../../core/result';
import type { VehicleLink } from '../../link/vehicleLink';
import { CodeListener } from './codeListener';

type Codes = Record<string, number>;

/** Modules that list codes with their status; each answer is what stands in the table at that moment. */
class Listing implements VehicleLink {
	readonly over = 'network';
	search = () => Promise.resolve(ok([]));
	asked: string[] = [];
	lost = false;
	constructor(
		readonly modules: Record<string, Codes | null>,
		private readonly refuses0A: string[] = [],
		private readonly mask = 0xff
	) {}
	request(address: number, bytes: ArrayLike<number>) {
		const name = address.toString(16).toUpperCase().padStart(4, '0');
		const part = bytes[1] ?? 0;
		this.asked.push(`${name} ${part.toString(16)}`);
		if (this.lost) return Promise.resolve(fail({ kind: 'closed' as const, text: 'The line is gone.' }));
		const codes = this.modules[name];
		if (!codes) return Promise.resolve(fail({ kind: 'no-answer' as const, text: 'silent' }));
		if (part === 0x0a && this.refuses0A.includes(name))
			return Promise.resolve(ok(Uint8Array.of(0x7f, 0x19, 0x12)));
		const listed = Object.entries(codes).filter(([, status]) => part === 0x0a || status !== 0);
		const raw = listed.flatMap(([dtc, status]) => [
			...[0, 2, 4].map((at) => parseInt(dtc.slice(at, at + 2), 16)),
			status
		]);
		return Promise.resolve(ok(Uint8Array.from([0x59, part, this.mask, ...raw])));
	}
	close() {}
}
/** Goes once through all modules. */
const round = async (listener: CodeListener, link: Listing, atS: number, kmh: number | null = 40) => {
	for (const i of Object.keys(link.modules).keys()) await listener.ask(atS + i, kmh);
};

describe('listening to codes while it is driven', () => {
	it('hears a code come back, with the moment and the speed, and then each change once', async () => {
		const link = new Listing({ '1010': { '404513': 0x50 }, '1030': {} });
		const listener = new CodeListener(link, ['1010', '1030']);
		await round(listener, link, 0);
		await round(listener, link, 10);
		expect(listener.heard).toEqual([]);
		link.modules['1010'] = { '404513': 0x2f };
		await round(listener, link, 20, 43);
		await round(listener, link, 30);
		expect(listener.heard).toEqual([{ atS: 20, kmh: 43, address: '1010', dtc: '404513', status: 0x2f }]);
		link.modules['1010'] = { '404513': 0x2e };
		await round(listener, link, 40);
		expect(listener.heard.map(({ status }) => status)).toEqual([0x2f, 0x2e]);
	});

	it('hears that a test has run, also of a code that is then listed no more', async () => {
		const link = new Listing({ '1010': { '404513': 0x50, '403513': 0x50 } }, ['1010']);
		const listener = new CodeListener(link, ['1010']);
		for (const atS of [0, 1, 2]) await listener.ask(atS, 20);
		link.modules['1010'] = { '404513': 0, '403513': 0x40 };
		await listener.ask(3, 30);
		expect(listener.heard).toEqual([
			{ atS: 3, kmh: 30, address: '1010', dtc: '403513', status: 0x40 },
			{ atS: 3, kmh: 30, address: '1010', dtc: '404513', status: 0 }
		]);
		// Refused once, it is asked by mask from then on.
		expect(link.asked).toEqual(['1010 a', '1010 2', '1010 2', '1010 2']);
	});

	it('of a module that cannot say whether a test has run, that is no news', async () => {
		const link = new Listing({ '1010': { '404513': 0x50 } }, [], 0x2f);
		const listener = new CodeListener(link, ['1010']);
		await listener.ask(0, 20);
		link.modules['1010'] = { '404513': 0 };
		await listener.ask(1, 20);
		expect(listener.heard).toEqual([]);
	});

	it('a fault that is there from the start is heard; a new one in any module too', async () => {
		const link = new Listing({ '1010': { '404513': 0x2f }, '1030': null, '1040': { C41581: 0 } });
		const listener = new CodeListener(link, ['1010', '1030', '1040']);
		await round(listener, link, 0, null);
		link.modules['1040'] = { C41581: 0x2f };
		await round(listener, link, 10);
		expect(listener.heard.map(({ address, dtc, kmh }) => [address, dtc, kmh])).toEqual([
			['1010', '404513', null],
			['1040', 'C41581', 40]
		]);
	});

	it('leaves the line to the signals: one module at a time, twice a second at most', async () => {
		const link = new Listing({ '1010': {}, '1030': {} });
		const listener = new CodeListener(link, ['1010', '1030']);
		for (let atS = 0; atS < 10; atS += 0.05) await listener.ask(atS, 20);
		expect(link.asked.length).toBeLessThanOrEqual(20);
		expect(link.asked.filter((one) => one.startsWith('1030')).length).toBeGreaterThanOrEqual(9);
	});

	it('a module that is silent is left alone for a while, then asked again', async () => {
		const link = new Listing({ '1010': null });
		const listener = new CodeListener(link, ['1010']);
		for (let atS = 0; atS < 60; atS += 0.5) await listener.ask(atS, 20);
		expect(link.asked).toHaveLength(3);
	});

	it('says when the line is gone, and asks nobody where there is nobody', async () => {
		const link = new Listing({ '1010': {} });
		const listener = new CodeListener(link, ['1010']);
		link.lost = true;
		expect(await listener.ask(0, 20)).toBe('The line is gone.');
		expect(await new CodeListener(link, []).ask(0, 20)).toBeNull();
	});
});
