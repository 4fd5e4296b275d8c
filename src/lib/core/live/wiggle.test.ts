import { expect, it } from 'vitest';
import { wiggledPlaces } from './wiggle';

const marks = [
	{ atS: 2, label: 'plug X21' },
	{ atS: 8, label: 'plug X20' },
	{ atS: 30, label: 'sensor' }
];

it('an event belongs to the place that was moved last, while the hand is there', () => {
	expect(wiggledPlaces(marks, [9, 3, 10.5, 29])).toEqual([
		{ label: 'plug X20', count: 2, firstS: 9 },
		{ label: 'plug X21', count: 1, firstS: 3 }
	]);
});

it('what came before any hand or long after one belongs to no place', () => {
	expect(wiggledPlaces(marks, [1, 20])).toEqual([]);
});
