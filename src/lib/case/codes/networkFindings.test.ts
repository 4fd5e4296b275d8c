import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { shippedBook } from '../../../../library/codes';
import type { NetworkScan } from '../entries/network-scan/payload';
import { networkFindings } from './networkFindings';
import { ThreadMaker } from '../thread/threads.fixture';

const type = vehicleTypes.get('brindle-marlow-16');
if (!type) throw new Error('no minibus');

/** A scan of the minibus in which these modules answer, with codes by module. */
function scanned(
	answering: string[],
	codes: [role: string, dtc: string, status: number][] = []
): NetworkScan {
	const empty = new ThreadMaker().scan([]);
	if (empty.kind !== 'network-scan') throw new Error('no scan');
	const [like] = empty.payload.modules;
	if (!like) throw new Error('no module');
	return {
		...empty.payload,
		modules: type!.modules.map(({ role, name, address }) => ({
			...like,
			name,
			address,
			answered: answering.includes(role),
			codes: codes
				.filter(([at]) => at === role)
				.map(([, dtc, status]) => ({
					dtc,
					status,
					snapshots: [],
					occurrences: 1,
					ageingCycles: 0,
					troubles: []
				}))
		}))
	};
}
const roles = type.modules.map((module) => module.role);
const allBut = (...silent: string[]) => roles.filter((role) => !silent.includes(role));
const findings = (scan: NetworkScan) => networkFindings(scan, type, shippedBook);

describe('what the answers of a whole network say', () => {
	it('two silent modules that share a splice point at the splice, and what works for others is cleared', () => {
		const [finding, ...more] = findings(scanned(allBut('steering-angle', 'cluster')));
		expect(more).toEqual([]);
		expect(finding?.title).toBe(
			'Steering angle and instrument cluster are silent and share fuse F14 and splice S7'
		);
		expect(finding?.todo).toContain(
			'Look at fuse F14 (fuse box behind the glove box) and splice S7 (behind the left kick panel)'
		);
		expect(finding?.text).toContain('the chassis segment works for brake control, yaw and lateral sensor');
	});

	it('one silent module is told from what it shares with those that answer', () => {
		const [finding] = findings(scanned(allBut('brake')));
		expect(finding?.title).toBe('Brake control is silent, the others answer');
		expect(finding?.todo).toContain('Look at fuse F31 (fuse box at the battery) and ground point G2');
		expect(finding?.text).toContain('Only it hangs on those.');
	});

	it('a module that claims another is missing while that one answers is contradicted', () => {
		const all = allBut();
		const [now] = findings(scanned(all, [['cluster', 'C12187', 0xaf]]));
		expect(now?.title).toBe('Instrument cluster says that brake control is missing, yet it answers us');
		expect(now?.text).toMatch(/fails at this moment/);
		expect(now?.todo).toMatch(/branch of instrument cluster/);
		const [history] = findings(scanned(all, [['cluster', 'C12187', 0x28]]));
		expect(history?.text).toMatch(/is history/);
		expect(findings(scanned(allBut('brake'), [['cluster', 'C12187', 0xaf]]))).toHaveLength(1);
	});

	it('codes that call a sender’s data invalid follow from the sender’s own', () => {
		const all = allBut();
		const listeners: [string, string, number][] = [
			['steering-angle', 'C41581', 0x2f],
			['cluster', 'C41581', 0x28]
		];
		const [follows, ...more] = findings(scanned(all, [['brake', '404513', 0xaf], ...listeners]));
		expect(more).toEqual([]);
		expect(follows?.title).toBe(
			'U0415-81 in steering angle and instrument cluster follow from brake control'
		);
		expect(follows?.todo).toBe('Do C0045-13 in brake control first.');
		const many = ['steering-angle', 'yaw', 'cluster', 'engine'].map((role): [string, string, number] => [
			role,
			'C41581',
			0x2f
		]);
		const [counted] = findings(scanned(all, [['brake', '404513', 0xaf], ...many]));
		expect(counted?.title).toBe('U0415-81 in 4 modules follow from brake control');
		expect(counted?.text).toMatch(
			/They are steering angle, yaw and lateral sensor, instrument cluster and engine control\.$/
		);
		const [alone] = findings(scanned(all, listeners));
		expect(alone?.title).toBe(
			'Steering angle and instrument cluster call the data of brake control invalid, yet it knows of no fault'
		);
		expect(alone?.todo).toMatch(/coding and calibration/);
		expect(findings(scanned(allBut('brake'), listeners))).toHaveLength(1);
	});

	it('says nothing of a vehicle that nobody described, nor where all is well', () => {
		expect(networkFindings(scanned([]), null, shippedBook)).toEqual([]);
		expect(findings(scanned(allBut()))).toEqual([]);
	});
});

describe('a module that is left to its maker', () => {
	it('nobody is sent to it, whatever is silent with it or says so', () => {
		const alone = 'restraint';
		const said = [
			networkFindings(scanned(roles.filter((role) => role !== alone)), type, shippedBook),
			networkFindings(scanned(roles.filter((role) => ![alone, 'yaw'].includes(role))), type, shippedBook),
			networkFindings(scanned(roles, [['cluster', 'C15187', 0x2f]]), type, shippedBook),
			networkFindings(scanned(roles, [[alone, 'C12687', 0x2f]]), type, shippedBook)
		].flat();
		for (const { title, todo } of said) {
			if (/restraint/i.test(title)) {
				expect(todo, title).toMatch(/maker’s procedure/);
				expect(todo, title).not.toMatch(/branch|supply/i);
			} else expect(todo, title).not.toMatch(/restraint|F18/i);
		}
		expect(said.filter(({ title }) => /left to its maker/.test(title)).length).toBe(3);
	});

	it('is not said to fail where another sends it wrong data', () => {
		const invalid = roles.map((role): [string, string, number] => [role, 'C41581', 0x2f]);
		const said = networkFindings(scanned(roles, [...invalid, ['brake', '404513', 0x2f]]), type, shippedBook);
		expect(said.map(({ title }) => title).join('\n')).not.toMatch(/left to its maker/);
		expect(said.map(({ title }) => title).join('\n')).toMatch(/follow/);
		// Nor where it misses one that is silent for everybody.
		const silent = networkFindings(
			scanned(
				roles.filter((role) => role !== 'brake'),
				roles.filter((role) => role !== 'brake').map((role) => [role, 'C12187', 0x2f])
			),
			type,
			shippedBook
		);
		expect(silent.map(({ title }) => title).join('\n')).not.toMatch(/left to its maker/);
	});
});
