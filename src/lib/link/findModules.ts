import { identifiers } from '../../../library';
import type { FoundModule, ModulesFound } from '../case/entries/modules-found/payload';
import { ok, type Result } from '../core/result';
import { parseCodeList, ReadCodes } from '../core/uds/readCodes';
import { Conversation } from './conversation';
import type { LinkError, VehicleLink } from './vehicleLink';

export interface FindWatcher {
	/** Called when a module is asked about itself. */
	begins(address: string): void;
	/** Called after each module, with all that is known by now. */
	sofar(found: ModulesFound): Promise<void>;
	cancelled(): boolean;
}

const hexAddress = (address: number) => address.toString(16).toUpperCase().padStart(4, '0');
const text = (value: string | number | null): string | null =>
	value === null || value === '' ? null : String(value).slice(0, 120);

/**
 * Asks who is there, and each that answers what it is: what it calls itself, its part and software, which of the library's
 * identifiers it tells and which codes it can set. The error is that of the search; what breaks later is told in what was found.
 */
export async function findModules(
	link: VehicleLink,
	watcher: FindWatcher
): Promise<Result<ModulesFound, LinkError>> {
	const there = await link.search();
	if (!there.ok) return there;
	const found: ModulesFound = { over: link.over, modules: [], stoppedBecause: null };
	for (const { address, silent } of there.value) {
		if (watcher.cancelled()) return ok({ ...found, stoppedBecause: 'It was cancelled.' });
		watcher.begins(hexAddress(address));
		const { module, lost } = await askAboutItself(link, address, silent);
		found.modules.push(module);
		await watcher.sofar(found);
		if (lost) return ok({ ...found, stoppedBecause: lost });
	}
	return ok(found);
}

async function askAboutItself(
	link: VehicleLink,
	address: number,
	silent: string | null
): Promise<{ module: FoundModule; lost: string | null }> {
	const module: FoundModule = {
		address: hexAddress(address),
		silent,
		name: null,
		software: null,
		part: null,
		vin: null,
		volts: null,
		tells: [],
		knows: []
	};
	if (silent !== null) return { module, lost: null };
	const talk = new Conversation(link, address, () => false);
	const told = new Map<string, string | number | null>();
	for (const id of identifiers.keys()) {
		const answer = await talk.identifier(id);
		if (answer.ok) told.set(id, answer.value);
		else if (answer.error.lost) return { module, lost: answer.error.text };
	}
	const supported = await talk.ask([0x19, ReadCodes.supported]);
	const list = supported.ok ? parseCodeList(supported.value) : null;
	const volts = told.get('F442');
	return {
		module: {
			...module,
			name: text(told.get('F197') ?? null),
			software: text(told.get('F195') ?? null),
			part: text(told.get('F187') ?? null),
			vin: text(told.get('F190') ?? null),
			volts: typeof volts === 'number' ? volts : null,
			tells: [...told.keys()],
			knows: list?.ok ? [...new Set(list.value.codes.map(({ dtc }) => dtc))] : []
		},
		lost: null
	};
}
