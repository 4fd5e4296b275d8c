import { parseArgs } from 'node:util';
import { vehicleTypes, type VehicleType } from '../../../library';
import { faults } from '../../../library/faults';
import { DOIP_PORT } from '../core/uds/doip';
import { placesFor } from '../../../library/faultPlaces';
import { parseFault } from './faults/benchFault';
import { BenchHost } from './net/host';
import { uniform } from './vehicle';

/**
 * The bench vehicle as a process of its own:
 * `npm run bench-vehicle -- --vehicle brindle-marlow-16 --fault lead-open:rear-left,fuse-blown --seed 7`
 *
 * A fault that names no place gets one from the seed. `--fault list` shows all there are.
 */
const { values } = parseArgs({
	options: {
		vehicle: { type: 'string', default: 'brindle-marlow-16' },
		vin: { type: 'string', default: 'BRM16SCH9P0004183' },
		'odometer-km': { type: 'string', default: '84210' },
		fault: { type: 'string', default: '' },
		seed: { type: 'string', default: '1' },
		'link-port': { type: 'string', default: String(DOIP_PORT) },
		'panel-port': { type: 'string', default: '13480' },
		'can-port': { type: 'string', default: '13481' },
		key: { type: 'string', default: 'on' }
	}
});

const type = vehicleTypes.get(values.vehicle);
if (!Number.isInteger(Number(values.seed))) {
	console.error(`"${values.seed}" is no seed: a whole number is expected.`);
	process.exit(2);
}
if (!type) {
	console.error(`No vehicle "${values.vehicle}". There are: ${[...vehicleTypes.keys()].join(', ')}`);
	process.exit(2);
}
/** A wrong word ends the process with what was expected, as a wrong option does. */
function readFaults(text: string, vehicle: VehicleType) {
	const random = uniform(Number(values.seed));
	try {
		return text
			.split(',')
			.filter(Boolean)
			.map((one) => parseFault(one, vehicle, random));
	} catch (error) {
		console.error(error instanceof Error ? error.message : String(error));
		process.exit(2);
	}
}

if (values.fault === 'list') {
	for (const fault of faults.values()) {
		const places = placesFor(fault, type);
		if (places.length > 0) console.log(`${fault.id.padEnd(28)} ${fault.name} (${places.join(', ')})`);
	}
	process.exit(0);
}
const host = new BenchHost({
	type,
	seed: Number(values.seed),
	vin: values.vin,
	odometerKm: Number(values['odometer-km']),
	faults: readFaults(values.fault, type),
	linkPort: Number(values['link-port']),
	panelPort: Number(values['panel-port']),
	canPort: Number(values['can-port'])
});
const ports = await host.start();
if (values.key === 'on') host.act({ do: 'key', to: 'on' });
console.log(JSON.stringify({ vehicle: type.id, ...ports }));
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.once(signal, () => void host.stop().then(() => process.exit(0)));
}
