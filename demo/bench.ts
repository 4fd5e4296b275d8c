import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { vehicleTypes } from '../library';
import { BenchHost } from '../src/lib/bench/net/host';
import type { VehicleMemory } from '../src/lib/bench/memory';
import { portsOf, VEHICLES } from './shop';

/** The demo shop's vehicles, all in one process, each on its own ports, kept as they are left. */
const { values } = parseArgs({ options: { data: { type: 'string' }, 'first-port': { type: 'string' } } });
const { data, 'first-port': firstPort } = values;
if (!data || !firstPort) throw new Error('bench needs --data and --first-port');

const SAVE_MS = 1000;
const fileOf = (id: string) => join(data, 'bench', `${id}.json`);

const hosts = await Promise.all(
	VEHICLES.map(async (vehicle, index) => {
		const type = vehicleTypes.get(vehicle.typeId);
		if (!type) throw new Error(`${vehicle.typeId} is not in the library`);
		const host = new BenchHost({ ...vehicle, type, ...portsOf(index, Number(firstPort)) });
		if (existsSync(fileOf(vehicle.id))) {
			host.vehicle.recall(JSON.parse(readFileSync(fileOf(vehicle.id), 'utf8')) as VehicleMemory);
		}
		await host.start();
		return { id: vehicle.id, host, saved: '' };
	})
);

/** A half-written file would lose the vehicle, so the new one takes the old one's place whole. */
function save(): void {
	for (const kept of hosts) {
		const memory = JSON.stringify(kept.host.vehicle.memory);
		if (memory === kept.saved) continue;
		writeFileSync(`${fileOf(kept.id)}.new`, memory);
		renameSync(`${fileOf(kept.id)}.new`, fileOf(kept.id));
		kept.saved = memory;
	}
}
const saving = setInterval(save, SAVE_MS);
console.log('ready');
process.send?.('ready');
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
	process.once(signal, () => {
		clearInterval(saving);
		save();
		void Promise.all(hosts.map(({ host }) => host.stop())).then(() => process.exit(0));
	});
}
