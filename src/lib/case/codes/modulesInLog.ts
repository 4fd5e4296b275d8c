import { identifiers } from '../../../../library';
import { isToAll, requestId } from '../../core/bus/diagnosticPair';
import { parseHexBytes } from '../../core/bytes';
import { routeOfAddress, TESTER } from '../../core/can/canRoute';
import { decodeIdentifier } from '../../core/uds/identifierValue';
import { parseCodeList, ReadCodes } from '../../core/uds/readCodes';
import type { PayloadOf } from '../entries/entry';
import type { ModulesFound } from '../entries/modules-found/payload';
import { codesKnown, toldOfItself } from './toldOfItself';
import { MOST } from '../entries/shapes';

/** The modules of a vehicle as far as a log of its bus shows them: another tool asked, and this is what it heard. */

const READ_BY_ID = 0x62;
const CODES = 0x59;

type Exchange = PayloadOf<'frame-log'>['exchanges'][number];

const isExtended = (id: string): boolean => id.length === 8;

/** Where the module answers that spoke on this identifier, as a search of addresses writes it; null where the pair follows no rule. */
function addressOf({ requestId: asked, responseId }: Exchange): string | null {
	const extended = isExtended(responseId ?? asked ?? '');
	const own = asked === null ? null : parseInt(asked, 16);
	const answered = responseId === null ? null : parseInt(responseId, 16);
	const request =
		answered !== null ? requestId(answered, extended) : own !== null && !isToAll(own, extended) ? own : null;
	if (request === null) return null;
	const address = extended ? (request >>> 8) & 0xff : request;
	const route = routeOfAddress(address);
	// A tester that speaks under another address than ours is asked nothing: only who answered counts.
	const isSame =
		route?.extended === extended && (extended ? request >>> 16 === 0x18da : route.request === request);
	return isSame && address !== TESTER ? address.toString(16).toUpperCase().padStart(4, '0') : null;
}

/** What is heard of one module. */
interface Heard {
	answered: boolean;
	told: Map<string, string | number | null>;
	knows: string[];
}

/** Lays what one answer tells into what is heard of its module. */
function hear(heard: Heard, response: string): void {
	const bytes = parseHexBytes(response);
	if (!bytes.ok) return;
	const [service, list] = bytes.value;
	if (service === CODES && list === ReadCodes.supported) {
		const codes = parseCodeList(bytes.value);
		if (codes.ok) heard.knows = codesKnown(codes.value);
	}
	const id = response.slice(2, 6).toUpperCase();
	const rule = service === READ_BY_ID ? identifiers.get(id) : undefined;
	if (!rule) return;
	const value = decodeIdentifier(rule, response.slice(6));
	if (value.kind === 'wrong-length') return;
	heard.told.set(id, value.kind === 'text' ? value.text : value.kind === 'number' ? value.value : null);
}

/**
 * Who answered in a frame log, under which address, and what each said of itself; who was asked by address and never answered is
 * silent. Null where nobody was spoken to by the rules of ISO 15765-4.
 */
export function modulesInLog({
	exchanges,
	fileName,
	exchangeCount
}: PayloadOf<'frame-log'>): ModulesFound | null {
	const byAddress = new Map<string, Heard>();
	for (const exchange of exchanges) {
		const address = addressOf(exchange);
		if (address === null) continue;
		const heard = byAddress.get(address) ?? { answered: false, told: new Map(), knows: [] };
		byAddress.set(address, heard);
		if (exchange.response === null) continue;
		heard.answered = true;
		hear(heard, exchange.response);
	}
	if (byAddress.size === 0) return null;
	const left = exchangeCount - exchanges.length;
	return {
		over: 'can',
		modules: [...byAddress]
			.sort(([a], [b]) => (a < b ? -1 : 1))
			.slice(0, MOST.modules)
			.map(([address, { answered, told, knows }]) => ({
				...toldOfItself(address, told),
				silent: answered ? null : 'It was asked in the log and did not answer.',
				knows
			})),
		stoppedBecause: `Taken from ${fileName}: whom nobody asked there is not known${left > 0 ? `, and its last ${left} exchanges were not kept` : ''}.`
	};
}
