import type { LinkRoutes } from '../../../library/vehicle/linkRoutes';
import type { Result } from '../core/result';
import { adapterOverSerial, adapterOverTcp } from './adapterPort';
import { CanLink } from './canLink';
import { DoipLink } from './doipLink';
import type { LinkPlace } from './linkAddress';
import { LINK_TIMES, type LinkError, type VehicleLink } from './vehicleLink';

const NO_ROUTES: LinkRoutes = { network: new Map(), can: new Map() };

/**
 * Opens the way to a vehicle.
 *
 * @param routes where modules answer, where the address by which a case knows them does not say it
 */
export async function openLink(
	{ kind, at, bitrate }: LinkPlace,
	routes: LinkRoutes = NO_ROUTES
): Promise<Result<VehicleLink, LinkError>> {
	if (kind === 'doip') return DoipLink.open(at, LINK_TIMES, routes.network);
	const port = await (kind === 'can-serial'
		? adapterOverSerial(at)
		: adapterOverTcp(at, LINK_TIMES.connectMs));
	return port.ok ? CanLink.open(port.value, { bitrate, routes: routes.can }) : port;
}
