import { codeConditions } from '$lib/case/watch/watchDefaults';
import { latest } from '$lib/case/thread/thread';
import { thresholdOf } from '$lib/core/tyres/codeThreshold';
import type { FittedTyre } from '$lib/core/tyres/tyreReport';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { caseHere } from '$lib/server/cases/access';
import { CAR_POSITIONS } from '../../../../../../library/positions';

const carWheels = CAR_POSITIONS.map((position) => ({
	position,
	axle: position.startsWith('front') ? 1 : 2,
	side: position.endsWith('left') ? ('left' as const) : ('right' as const)
}));

export const load = async ({ params, depends, locals }) => {
	depends('jaldi:case');
	const { view, type } = await caseHere({ params, locals });
	const told = latest(view.entries, 'tyres-fitted')?.payload.tyres ?? [];
	const wheels = type?.wheels ?? carWheels;
	const drive = type?.chassis.drive ?? null;
	return {
		cautions: (await cautionsHere(locals.services, type)).words(['road', 'wheel-turns']),
		positions: wheels.map(({ position }) => position),
		fitted: wheels.map(({ position, axle, side }): FittedTyre => {
			const tyre = told.find((one) => one.position === position);
			return {
				position,
				axle,
				// One wheel an axle is compared with the other axle alone.
				side: side === 'middle' ? 'left' : side,
				size: tyre?.size ?? '',
				treadMm: tyre?.treadMm ?? null,
				pressureShare: null
			};
		}),
		drive: drive === 'none' ? null : drive,
		codes: codeConditions(view)
			.filter(({ what }) => what === 'set')
			.flatMap(({ text, condition }) => {
				const threshold = thresholdOf(condition);
				return threshold ? [{ text, threshold }] : [];
			})
	};
};
