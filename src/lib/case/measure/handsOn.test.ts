import { expect, it } from 'vitest';
import { vehicleTypes } from '../../../../library';
import { wirePath } from '../../../../library/measurePoints';
import { handsOn } from './handsOn';

const LICHEN = vehicleTypes.get('norvane-lichen');
if (!LICHEN) throw new Error('no norvane-lichen');
const labels = (path: Parameters<typeof handsOn>[0], steered: boolean) =>
	handsOn(path, steered).map(({ label }) => label);

it('hands go by its plugs, each once, then water and hot air', () => {
	expect(labels(wirePath(LICHEN, 'rear-left', 'signal'), false)).toEqual([
		'module plug',
		'plug X3',
		'plug X20',
		'plug X21',
		'lead',
		'sensor plug',
		'sensor',
		'water',
		'hot air'
	]);
});

it('only a wheel that steers is turned from lock to lock; without a diagram there is what every wheel has', () => {
	expect(labels([], true)).toEqual([
		'module plug',
		'lead',
		'sensor plug',
		'sensor',
		'water',
		'hot air',
		'steering'
	]);
});
