import type { ModuleRole } from '../../../../library';
import type { World } from '../world';
import { MESSAGE_TIMEOUT_S } from './messages';
import type { Module, Watch } from './module';
import type { Lamp, Sample } from './monitor';

/** Whose message each module needs. */
export const LISTENS: Record<ModuleRole, ModuleRole[]> = {
	gateway: [
		'brake',
		'steering-angle',
		'yaw',
		'power-steering',
		'park-brake',
		'cluster',
		'restraint',
		'engine',
		'trailer-brake'
	],
	brake: ['steering-angle', 'yaw', 'engine', 'park-brake'],
	'steering-angle': ['brake'],
	yaw: ['brake'],
	'power-steering': ['brake', 'steering-angle', 'engine'],
	'park-brake': ['brake'],
	cluster: ['brake', 'engine', 'restraint', 'power-steering', 'park-brake'],
	restraint: ['brake'],
	engine: ['brake'],
	'trailer-brake': ['gateway']
};

/** Two bytes of "nothing heard from" (U01xx) and "invalid data from" (U04xx) each sender, where the table has one. */
const NOT_HEARD: Record<ModuleRole, string> = {
	brake: 'C121',
	'steering-angle': 'C126',
	yaw: 'C123',
	engine: 'C100',
	'power-steering': 'C131',
	'park-brake': 'C128',
	cluster: 'C155',
	restraint: 'C151',
	gateway: 'C146',
	'trailer-brake': 'C137'
};
const INVALID: Partial<Record<ModuleRole, string>> = {
	brake: 'C415',
	'steering-angle': 'C428',
	engine: 'C401',
	'power-steering': 'C420',
	'park-brake': 'C417',
	cluster: 'C423'
};

/** Lamps that a listener without this sender wants lit. */
const LAMPS_WITHOUT: Partial<Record<ModuleRole, Lamp[]>> = {
	brake: ['anti-lock', 'stability'],
	yaw: ['stability'],
	'steering-angle': ['stability']
};

/** Sets and heals the codes of a module that does not hear, or cannot use, what it needs from others on this vehicle. */
export function listeningWatches(module: Module, onVehicle: ReadonlySet<ModuleRole>): Watch[] {
	const { role } = module;
	return LISTENS[role]
		.filter((sender) => onVehicle.has(sender))
		.flatMap((sender) => {
			const lamps = role === 'cluster' || role === 'brake' ? (LAMPS_WITHOUT[sender] ?? []) : [];
			const watches: Watch[] = [
				{
					rule: { dtc: `${NOT_HEARD[sender]}87`, failS: 1, passS: 1, lamps },
					sample: (world): Sample => {
						// With the key off the senders sleep: their silence says nothing.
						if (!world.keyOn) return 'none';
						return world.messages.silentS(role, sender, world.timeS) > MESSAGE_TIMEOUT_S ? 'fail' : 'pass';
					}
				},
				{
					rule: { dtc: `${NOT_HEARD[sender]}82`, failS: 1, passS: 1, lamps: [] },
					sample: (world): Sample => {
						const message = heard(world, role, sender);
						if (!message) return 'none';
						return world.timeS - message.movedAtS > MESSAGE_TIMEOUT_S ? 'fail' : 'pass';
					}
				}
			];
			const invalid = INVALID[sender];
			// The gateway passes on what it hears and uses none of it.
			if (invalid && role !== 'gateway') {
				watches.push({
					rule: { dtc: `${invalid}81`, failS: 1, passS: 2, lamps: [] },
					sample: (world): Sample => {
						const message = heard(world, role, sender);
						if (!message) return 'none';
						return message.valid ? 'pass' : 'fail';
					}
				});
			}
			return watches;
		});
}

const heard = (world: World, role: ModuleRole, sender: ModuleRole) =>
	world.keyOn ? world.messages.read(role, sender, world.timeS) : null;

const SUPPLY_LOW_V = 9;
const SUPPLY_GOOD_V = 10;

/** What every module but brake control watches about itself: its supply, its inside, what is written into it. */
export function ownWatches(module: Module, lamps: Lamp[]): Watch[] {
	return [
		{
			rule: { dtc: '056216', failS: 1, passS: 1, lamps: [] },
			sample: (world): Sample => {
				const volts = module.volts(world);
				if (volts < SUPPLY_LOW_V) return 'fail';
				return volts >= SUPPLY_GOOD_V ? 'pass' : 'none';
			}
		},
		{
			rule: { dtc: '060704', failS: 0.5, passS: 1, lamps },
			sample: (world): Sample => (world.internalFaults.has(module.role) ? 'fail' : 'pass')
		}
	];
}
