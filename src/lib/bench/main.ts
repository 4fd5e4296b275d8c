import { parseArgs } from 'node:util';
import { vehicleTypes } from '../../../library';
import { DOIP_PORT } from '../core/uds/doip';
import { parseFault } from './faults';
import { BenchHost } from './net/host';

/**
 * The bench vehicle as a process of its own:
 * `npm run bench-vehicle -- --vehicle brindle-marlow-16 --fault lead-open:rear-left --link-port 13400`
 */
const { values } = parseArgs({
	options: {
		vehicle: { type: 'string', default: 'brindle-marlow-16' },
		vin: { type: 'string', default: 'BRM16SCH9P0004183' },
		'odometer-km': { type: 'string', default: '84210' },
		fault: { type: 'string', default: '' },
		'link-port': { type: 'string', default: String(DOIP_PORT) },
		'panel-port': { type: 'string', default: '13480' },
		key: { type: 'string', default: 'on' }
	}
});

const type = vehicleTypes.get(values.vehicle);
if (!type) {
	console.error(`No vehicle "${values.vehicle}". There are: ${[...vehicleTypes.keys()].join(', ')}`);
	process.exit(2);
}
const host = new BenchHost({
	type,
	vin: values.vin,
	odometerKm: Number(values['odometer-km']),
	faults: values.fault.split(',').filter(Boolean).map(parseFault),
	linkPort: Number(values['link-port']),
	panelPort: Number(values['panel-port'])
});
const ports = await host.start();
if (values.key === 'on') host.act({ do: 'key', to: 'on' });
console.log(JSON.stringify({ vehicle: type.id, ...ports }));
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.once(signal, () => void host.stop().then(() => process.exit(0)));
}
