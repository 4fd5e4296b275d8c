import { expect, it } from 'vitest';
import { planDrive } from '../src/lib/core/prove/drivePlan';
import { shippedPacks } from './codes';

it('every test condition that is shipped can be met by a drive', () => {
	const tasks = shippedPacks
		.flatMap(({ definitions }) => definitions)
		.flatMap(({ code, failureType, testConditions }) =>
			testConditions ? [{ name: `${code}-${failureType ?? ''}`, condition: testConditions }] : []
		);
	expect(tasks.length).toBeGreaterThan(20);
	for (const one of tasks) expect(planDrive([one]).unmet, one.name).toEqual([]);
	expect(planDrive(tasks).unmet).toEqual([]);
});
