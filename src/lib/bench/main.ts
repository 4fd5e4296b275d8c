import { parseArgs } from 'node:util';
import { vehicleTypes, type VehicleType } from '../../../library';
import { DOIP_PORT } from '../core/uds/doip';
import { parseFault } from './faults/benchFault';
import { BenchHost } from './net/host';

/**
 * The bench vehicle as a process of its own:
 * `npm run bench-vehicle -- --vehicle brindle-marlow-16 --fault lead-open:rear-left,fuse-blown:F14 --seed 7`
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
	try {
		return text
			.split(',')
			.filter(Boolean)
			.map((one) => parseFault(one, vehicle));
	} catch (error) {
		console.error(error instanceof Error ? error.message : String(error));
		process.exit(2);
	}
}

const host = new BenchHost({
	type,
	seed: Number(values.seed),
	vin: values.vin,
	odometerKm: Number(values['odometer-km']),
	faults: readFaults(values.fault, type),
	linkPort: Number(values['link-port']),
	panelPort: Number(values['panel-port'])
});
const ports = await host.start();
if (values.key === 'on') host.act({ do: 'key', to: 'on' });
console.log(JSON.stringify({ vehicle: type.id, ...ports }));
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.once(signal, () => void host.stop().then(() => process.exit(0)));
}
