import { describe, expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { projectCase } from '../progress/project';
import { begun as begunProof } from './proof.fixture';
import { oneCodeRead } from '../thread/oneCode.fixture';
import { lampProof, lampsToWatch, mayBeClearedAgain, proofSteps } from './proofSteps';

const minibus = vehicleTypes.get('brindle-marlow-16');
if (!minibus) throw new Error('no minibus in the library');
const begun = () => oneCodeRead(minibus, 'brake', '404513', 0x2f);
const DRIVE = { distanceKm: 3, topSpeedKmh: 60, stops: 1, road: 'dry', driver: '', note: '' } as const;

describe('the steps to proof', () => {
	it('are all open before a clear, whatever was done', () => {
		const maker = begun();
		maker.add('proving-drive', DRIVE);
		maker.add('lamp-check', { lamps: [{ lamp: 'anti-lock', result: 'lit and went out' }] });
		expect(Object.values(proofSteps(projectCase(maker.thread)))).toEqual([null, null, null, null, null]);
	});

	it('count from the clear on, and a reading only after the last of them', () => {
		const thread = begunProof();
		thread.clear();
		thread.cycleKey();
		thread.driven(5);
		const before = proofSteps(projectCase(thread.thread));
		expect(before).toMatchObject({ lamps: null, read: null });
		expect([before.clear, before.key, before.drive].map((step) => step?.kind)).toEqual([
			'codes-cleared',
			'key-cycled',
			'proving-drive'
		]);
		thread.scan([]);
		expect(proofSteps(projectCase(thread.thread)).read?.kind).toBe('network-scan');
		// Whatever could have changed what it says makes it old.
		thread.driven(2);
		expect(proofSteps(projectCase(thread.thread)).read).toBeNull();
	});

	it('have the usual lamps watched, or those that were told of', () => {
		const maker = begun();
		expect(lampsToWatch(maker.thread)).toEqual(['anti-lock', 'stability']);
		maker.add('lamps-reported', { lamps: [{ lamp: 'hill functions', manner: 'steady', when: 'always' }] });
		expect(lampsToWatch(maker.thread)).toEqual(['hill functions']);
	});

	it('do not clear again what is on its way', () => {
		expect(mayBeClearedAgain('never-cleared')).toBe(true);
		expect(mayBeClearedAgain('test-not-run')).toBe(false);
	});

	it('go by the lamp only where there is no link', () => {
		expect(lampProof(begun().thread)).toBeNull();
	});
});
