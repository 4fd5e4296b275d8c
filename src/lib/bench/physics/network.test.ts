import { describe, expect, it } from 'vitest';
import { linkTypes, vehicleTypes, type VehicleType } from '../../../../library';
import { hears, dominantCurrents, portsOn, whoHearsWhom, withCurrents } from './bus';
import { nodeVolts, VehicleNetwork, type Supply } from './network';
import { copperOhms, OPEN_OHMS } from './wiring';

const typeOf = (id: string): VehicleType => {
	const type = vehicleTypes.get(id);
	if (!type) throw new Error(`no ${id}`);
	return type;
};
const minibus = typeOf('brindle-marlow-16');
const on: Supply = {
	batteryVolts: 12.5,
	keyOn: true,
	pedalPressed: false,
	coilOhms: [1100, 1100, 1100, 1100],
	dead: new Set()
};
const off = { ...on, keyOn: false };
const works = (net: VehicleNetwork, supply = on) =>
	[...net.solve(supply).rails].filter(([, rail]) => rail.works).map(([role]) => role);

describe('the wiring of every vehicle', () => {
	it.each([...vehicleTypes.keys()])(
		'%s: all modules work with the key on, only the gateway with it off',
		(id) => {
			const type = typeOf(id);
			const net = new VehicleNetwork(type);
			expect(works(net)).toEqual(type.modules.map((m) => m.role));
			net.touch();
			expect(works(net, off)).toEqual(type.tells === 'link' ? ['gateway'] : []);
			expect(net.blownFuses.size).toBe(0);
		}
	);

	it.each(linkTypes.map(({ id }) => id))('%s: everybody hears everybody', (id) => {
		const type = typeOf(id);
		const table = whoHearsWhom(type, new VehicleNetwork(type).solve(on));
		expect(table.flat().every(Boolean)).toBe(true);
	});

	it('a stretch of copper has ρ·l/A', () => {
		expect(copperOhms(10, 0.5)).toBeCloseTo(0.35, 9);
	});
});

describe('supply and ground', () => {
	it('a module behind a bad ground stands above the body by current times resistance', () => {
		const net = new VehicleNetwork(minibus);
		net.setOhms('G2', 2);
		const solution = net.solve(on);
		const brake = solution.rails.get('brake');
		// 12.5 V over the module’s own 13.9 Ω and 2 Ω of rust, the copper left out.
		expect(brake?.ground).toBeCloseTo((12.5 * 2) / (12.5 / 0.9 + 2), 1);
		expect(nodeVolts(solution, 'G2')).toBeCloseTo(brake?.ground ?? 0, 1);
	});

	it('a joint that opens at a splice takes both modules behind it', () => {
		const net = new VehicleNetwork(minibus);
		const joint = [...net.wiring.elements.keys()].find((id) => id.startsWith('S7@'));
		net.setOhms(joint ?? '', OPEN_OHMS);
		const table = works(net);
		expect(table).not.toContain('cluster');
		expect(table).not.toContain('steering-angle');
		expect(table).toHaveLength(minibus.modules.length - 2);
	});

	it('a supply wire chafed to the body blows its fuse, which stays blown when the chafe is gone', () => {
		const net = new VehicleNetwork(minibus);
		net.setExtra('chafe', { a: 'brake.1:w', b: 'body', ohms: 0.05 });
		expect(works(net)).not.toContain('brake');
		expect([...net.blownFuses]).toEqual(['F31']);
		net.setExtra('chafe', null);
		expect(works(net)).not.toContain('brake');
		net.setFuse('F31', true);
		expect(works(net)).toContain('brake');
	});

	it('refuses an element that is not there', () => {
		expect(() => new VehicleNetwork(minibus).setOhms('W999', 1)).toThrow(/W999/);
	});
});

describe('a sensor’s circuit', () => {
	it('an open plug shows its feed at the harness side: the supply less the switch’s drop', () => {
		const net = new VehicleNetwork(minibus);
		expect(net.setPlugged('rear-left', false)).toBe(true);
		const solution = net.solve(on);
		const feed = nodeVolts(solution, 'rear-left.1:w') - (solution.rails.get('brake')?.ground ?? 0);
		expect(feed).toBeCloseTo((solution.rails.get('brake')?.supply ?? 0) - 0.3, 1);
		expect(net.setPlugged('nowhere', false)).toBe(false);
	});

	it('the sense resistor turns 7 mA into 0.805 V', () => {
		const solution = new VehicleNetwork(minibus).solve(on);
		const gain = solution.signals.loopTransferOhms('rear-left.1', 'rear-left.2', 'brake.16', 'brake~ground');
		expect(0.007 * gain).toBeCloseTo(0.805, 3);
	});
});

describe('the bus', () => {
	const ports = portsOn(minibus, 'chassis segment');
	const port = (role: string) => ports.find((p) => p.role === role)!;
	const across = (net: VehicleNetwork) => {
		const solution = net.solve(on);
		const currents = dominantCurrents(solution, port('yaw'));
		const volts = (node: string) => withCurrents(solution.signals, node, currents);
		return volts(port('brake').high) - volts(port('brake').low);
	};

	it('measures 60 Ω between the lines with everything plugged in, 120 Ω with a terminator gone, key off', () => {
		const net = new VehicleNetwork(minibus);
		const ohms = () => net.solve(off).signals.resistanceOhms('yaw.3:w', 'yaw.4:w');
		expect(ohms()).toBeGreaterThan(59);
		expect(ohms()).toBeLessThan(61);
		net.setPlugged('brake', false);
		expect(ohms()).toBeGreaterThan(118);
		expect(ohms()).toBeLessThan(121);
	});

	it('idles at 2.5 V on both lines and is driven to 3.5 and 1.5 V', () => {
		const solution = new VehicleNetwork(minibus).solve(on);
		const { high, low } = port('brake');
		expect(nodeVolts(solution, high)).toBeCloseTo(2.5, 1);
		expect(nodeVolts(solution, low)).toBeCloseTo(2.5, 1);
		const currents = dominantCurrents(solution, port('cluster'));
		// 5 V over two 45 Ω switches and 60 Ω.
		expect(withCurrents(solution.signals, high, currents)).toBeCloseTo(5 - 45 * (5 / 150), 1);
		expect(withCurrents(solution.signals, low, currents)).toBeCloseTo(45 * (5 / 150), 1);
	});

	it('drives more across a single terminator, 5·120/210 V', () => {
		const net = new VehicleNetwork(minibus);
		net.setPlugged('gateway', false);
		expect(across(net)).toBeCloseTo((5 * 120) / 210, 1);
	});

	it('superposing a driver gives what solving with the driver in the network gives', () => {
		const net = new VehicleNetwork(minibus);
		const before = net.solve(on);
		const currents = dominantCurrents(before, port('yaw'));
		const superposed = withCurrents(before.signals, 'brake.3', currents);
		const ground = before.rails.get('yaw')?.ground ?? 0;
		net.setExtra('low', { a: 'yaw.4', b: 'yaw~ground', ohms: 45 });
		net.setExtra('high', { a: 'yaw.3', b: 'yaw~five', ohms: 45 });
		expect(nodeVolts(net.solve(on), 'brake.3')).toBeCloseTo(superposed, 6);
		expect(ground).toBeLessThan(0.01);
	});

	it('is dead for all with the lines shorted, and with high shorted to the body', () => {
		for (const b of ['brake.4:w', 'body']) {
			const net = new VehicleNetwork(minibus);
			net.setExtra('short', { a: 'brake.3:w', b, ohms: 0.2 });
			const solution = net.solve(on);
			expect(hears(solution, port('yaw'), port('cluster'))).toBe(false);
		}
	});

	it('with one line of its branch open a module is heard by nobody; with both it hears nobody either', () => {
		const net = new VehicleNetwork(minibus);
		net.setOhms('cluster.3', OPEN_OHMS);
		const table = whoHearsWhom(minibus, net.solve(on));
		const at = minibus.modules.findIndex((m) => m.role === 'cluster');
		const others = minibus.modules.map((_, i) => i).filter((i) => i !== at);
		expect(others.some((i) => table[i]?.[at])).toBe(false);
		// Its receiver still finds 2.5 − 1.5 V between its own bias and the good line.
		expect(others.every((i) => table[at]?.[i])).toBe(true);
		net.setOhms('cluster.4', OPEN_OHMS);
		const cut = whoHearsWhom(minibus, net.solve(on));
		expect(others.some((i) => cut[at]?.[i] || cut[i]?.[at])).toBe(false);
		expect(others.every((i) => others.every((j) => table[i]?.[j]))).toBe(true);
	});

	it('a gateway without power leaves each segment to itself', () => {
		const net = new VehicleNetwork(minibus);
		net.setFuse('F12', false);
		const table = whoHearsWhom(minibus, net.solve(on));
		const at = (role: string) => minibus.modules.findIndex((m) => m.role === role);
		expect(table[at('engine')]?.[at('brake')]).toBe(false);
		expect(table[at('engine')]?.[at('restraint')]).toBe(true);
		expect(table[at('cluster')]?.[at('brake')]).toBe(true);
	});

	it('two modules behind a corroded pair splice on the ferry side fall silent together', () => {
		const skiff = typeOf('velmora-skiff');
		const net = new VehicleNetwork(skiff);
		const joint = [...net.wiring.elements.keys()].find((id) => id.startsWith('S7.1@'));
		net.setOhms(joint ?? '', 20_000);
		const table = whoHearsWhom(skiff, net.solve(on));
		const gateway = skiff.modules.findIndex((m) => m.role === 'gateway');
		const silent = skiff.modules.filter((_, i) => !table[gateway]?.[i]).map((m) => m.role);
		expect(silent).toEqual(['steering-angle', 'cluster']);
	});
});
