import { describe, expect, it } from 'vitest';
import { parseLinkAddress } from '../../link/linkAddress';
import { adaptersAt, mayDial, notAllowed, parseLinkRule, placesToAsk, refusedLink } from './linkRules';

const may = (address: string, ...rules: string[]) => {
	const place = parseLinkAddress(address);
	return place.ok && mayDial(place.value, rules);
};

describe('where a shop connects to', () => {
	it.each([
		['192.168.4.1:13400', '192.168.4.1', true],
		['192.168.4.1:13400', '192.168.4.1:13400', true],
		['192.168.4.1:22', '192.168.4.1:13400', false],
		['tcp://192.168.4.77:13400', '192.168.4.0/24', true],
		['slcan://192.168.5.77:3333', '192.168.4.0/24', false],
		['slcan://192.168.4.77:3333?kbit=250', '192.168.4.0/24:3333', true],
		['127.0.0.1:80', '127.0.0.1', true],
		['localhost:80', '127.0.0.1', true],
		['localhost:80', '127.0.0.1:81', false],
		['bay-3.local:3333', 'Bay-3.Local:3333', true],
		// A name is never a network, and digits that look like one are no host of it.
		['192.168.4.1.evil.test:80', '192.168.4.0/24', false],
		['2130706433:80', '127.0.0.1', false],
		['slcan:/dev/ttyACM0', '/dev/ttyACM0', true],
		['slcan:/dev/ttyACM1', '/dev/ttyACM0', false],
		['169.254.169.254:80', '192.168.0.0/16', false]
	])('%s under %s: %s', (address, rule, allowed) => {
		expect(may(address, rule)).toBe(allowed);
		expect(may(address)).toBe(false);
	});

	it.each([
		'',
		'300.1.1.1',
		'10.0.0.0/4',
		'10.0.0.0/33',
		'10.0.0.1:0',
		'10.0.0.1:70000',
		'a b',
		'*',
		'/dev/../etc',
		'http://x'
	])('“%s” is no line of the list', (text) => {
		expect(parseLinkRule(text)).toMatchObject({ ok: false, error: expect.stringContaining('expected') });
		expect(may('10.0.0.1:80', text)).toBe(false);
	});

	it.each([
		'http://127.0.0.1:80',
		'127.0.0.1',
		'127.0.0.1:0',
		'slcan://127.0.0.1',
		'slcan:/etc/passwd',
		'slcan:/dev/../etc/passwd',
		'127.0.0.1:80?kbit=250',
		'slcan://127.0.0.1:80?kbit=251',
		'user@127.0.0.1:80'
	])('%s is no address of a vehicle', (text) => {
		expect(refusedLink(text, ['127.0.0.1'])).toBeTruthy();
	});

	it('asks each host, and each network at the address that all of it hears', () => {
		expect(
			placesToAsk(['127.0.0.1', '192.168.4.0/24:13400', '10.1.2.3/30', 'name.local', '/dev/ttyS0'])
		).toEqual([
			{ host: '127.0.0.1', port: 13400, network: false },
			{ host: '192.168.4.255', port: 13400, network: true },
			{ host: '10.1.2.3', port: 13400, network: true }
		]);
	});
});

describe('adapters at serial devices', () => {
	it('are offered where they are plugged in and allowed; a lead sees those that are not yet', () => {
		const pluggedIn = ['/dev/ttyACM0', '/dev/ttyUSB1'];
		const rules = ['192.168.4.0/24', '/dev/ttyACM0', '/dev/ttyACM7'];
		expect(adaptersAt(rules, pluggedIn)).toEqual(['slcan:/dev/ttyACM0']);
		expect(notAllowed(rules, pluggedIn)).toEqual(['/dev/ttyUSB1']);
		expect(adaptersAt(rules, [])).toEqual([]);
	});
});
