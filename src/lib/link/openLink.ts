import type { DiagnosticPair } from '../core/bus/diagnosticPair';
import type { Result } from '../core/result';
import { adapterOverSerial, adapterOverTcp } from './adapterPort';
import { CanLink } from './canLink';
import { DoipLink } from './doipLink';
import type { LinkPlace } from './linkAddress';
import { LINK_TIMES, type LinkError, type SearchableLink } from './vehicleLink';

/**
 * Opens the way to a vehicle.
 *
 * @param routes identifiers of modules on CAN by their address, where the address itself does not say them
 */
export async function openLink(
	{ kind, at, bitrate }: LinkPlace,
	routes: ReadonlyMap<number, DiagnosticPair> = new Map()
): Promise<Result<SearchableLink, LinkError>> {
	if (kind === 'doip') return DoipLink.open(at);
	const port = await (kind === 'can-serial'
		? adapterOverSerial(at)
		: adapterOverTcp(at, LINK_TIMES.connectMs));
	return port.ok ? CanLink.open(port.value, { bitrate, routes }) : port;
}
