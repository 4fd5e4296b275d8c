import { identifiers } from '../../../library';
import { codesKnown, toldOfItself } from '../case/codes/toldOfItself';
import type { FoundModule, ModulesFound } from '../case/entries/modules-found/payload';
import { fail, ok, type Result } from '../core/result';
import { parseCodeList, ReadCodes } from '../core/uds/readCodes';
import { Conversation } from './conversation';
import { trouble, type LinkError, type VehicleLink } from './vehicleLink';

/** No vehicle has more; what answers at every address would be asked for hours. */
const MOST_MODULES = 120;

export interface FindWatcher {
	/** Called when a module is asked about itself. */
	begins(address: string): void;
	/** Called after each module, with all that is known by now. */
	sofar(found: ModulesFound): Promise<void>;
	cancelled(): boolean;
}

const hexAddress = (address: number) => address.toString(16).toUpperCase().padStart(4, '0');
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
	if (there.value.length > MOST_MODULES)
		return fail(trouble('garbage', `${there.value.length} addresses answer: that is no vehicle.`));
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
	const told = new Map<string, string | number | null>();
	const module = (): FoundModule => ({ ...toldOfItself(hexAddress(address), told), silent });
	if (silent !== null) return { module: module(), lost: null };
	const talk = new Conversation(link, address, () => false);
	for (const id of identifiers.keys()) {
		const answer = await talk.identifier(id);
		if (answer.ok) told.set(id, answer.value);
		// The line is gone: what it told until then is kept.
		else if (answer.error.lost) return { module: module(), lost: answer.error.text };
	}
	const supported = await talk.ask([0x19, ReadCodes.supported]);
	const list = supported.ok ? parseCodeList(supported.value) : null;
	return { module: { ...module(), knows: list?.ok ? codesKnown(list.value) : [] }, lost: null };
}
