import type { SensorKind } from './sensorKinds';

/** What a family is called, and how it works, in a line. */
export const FAMILY_WORDS: Record<SensorKind, { name: string; works: string }> = {
	passive: {
		name: 'passive coil',
		works:
			'needs no supply; makes a wave that grows with speed and falls with the gap; nothing below a few km/h'
	},
	'two-wire': {
		name: 'active, two wires',
		works:
			'fed by the module; draws 7 or 14 mA in turn; the module sees a small square voltage, down to standstill'
	},
	'two-wire-direction': {
		name: 'active, two wires, tells direction',
		works:
			'fed by the module; a short pulse of 28 mA a tooth, and a step after it that tells which way it turns'
	},
	'two-wire-pulse-width': {
		name: 'active, two wires, pulses of set lengths',
		works:
			'fed by the module; rests at 7 mA and rises to 14 mA for a short pulse a tooth, whose length tells which way it turns and whether the field is strong enough'
	},
	'three-wire': {
		name: 'active, three wires',
		works: 'fed with 5, 8 or 12 V; pulls a line down that the module pulls up'
	}
};
