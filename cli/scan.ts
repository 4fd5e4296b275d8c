import { linkRoutesOf, modulesToAsk, type LinkRoutes } from '../library/vehicle/linkRoutes';
import type { VehicleType } from '../library/vehicle/vehicleType';
import { decodeHeavy, decodeTold, type DecodedCode } from '../src/lib/case/codes/decoded';
import { idText } from '../src/lib/core/bus/frameLog';
import type { Broadcast } from '../src/lib/core/bus/codeBroadcasts';
import { parseHexBytes } from '../src/lib/core/bytes';
import { routeOfAddress } from '../src/lib/core/can/canRoute';
import { SLCAN_SPEEDS } from '../src/lib/core/can/slcan';
import { tellsOfFault } from '../src/lib/core/codes/status';
import { codesInResponse } from '../src/lib/core/uds/codesInResponse';
import { CanLink } from '../src/lib/link/canLink';
import { HeavyListener } from '../src/lib/link/heavyBroadcasts';
import { parseLinkAddress, type LinkPlace } from '../src/lib/link/linkAddress';
import { openLink } from '../src/lib/link/openLink';
import { readModule } from '../src/lib/link/scan';
import type { VehicleLink } from '../src/lib/link/vehicleLink';
import {
	complain,
	DONE,
	NOT_UNDERSTOOD,
	readArguments,
	say,
	strong,
	WrongUsage,
	type Command
} from './command';
import { codeText } from './decode';
import { vehicleIn } from './vehicle';

interface Found {
	link: 'doip' | 'can';
	modules: {
		requestId: string;
		responseId: string;
		name: string | null;
		software: string | null;
		trouble: string | null;
		codes: DecodedCode[];
	}[];
	silent: { address: string; reason: string }[];
	broadcasts: Broadcast[];
}

/** Buses of heavy vehicles run at this speed, and their modules are asked for what they tell everybody. */
const HEAVY_BITRATE = 250_000;

/** `jaldi scan tcp://HOST:PORT|slcan://HOST:PORT [--vehicle FILE] [--bitrate 500000] [--json]` */
export const scan: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		vehicle: { type: 'string' },
		bitrate: { type: 'string' }
	});
	const place = placeOf(positionals, values.bitrate);
	const vehicle = values.vehicle === undefined ? null : await vehicleIn(values.vehicle, 'scan');
	if (values.vehicle !== undefined && !vehicle) return NOT_UNDERSTOOD;
	const type = vehicle?.type ?? null;
	const routes = type ? linkRoutesOf(type) : undefined;
	const opened = await openLink(place, routes);
	if (!opened.ok) {
		complain(`jaldi scan: ${opened.error.text}`);
		return NOT_UNDERSTOOD;
	}
	const link = opened.value;
	const heavy = link instanceof CanLink ? new HeavyListener(link) : null;
	try {
		const found = await scanned(link, place, type);
		if (typeof found === 'string') {
			complain(`jaldi scan: ${found}`);
			return NOT_UNDERSTOOD;
		}
		if (place.bitrate === HEAVY_BITRATE || type?.volts === 24) await heavy?.ask();
		found.broadcasts = heavy?.broadcasts ?? [];
		await say(values.json ? `${JSON.stringify(asJson(found))}\n` : told(found));
		return DONE;
	} finally {
		heavy?.stop();
		link.close();
	}
};

function placeOf(positionals: string[], bitrate: string | undefined): LinkPlace {
	const [address] = positionals;
	if (address === undefined || positionals.length > 1)
		throw new WrongUsage('give one address: tcp://HOST:PORT or slcan://HOST:PORT');
	const place = parseLinkAddress(address);
	if (!place.ok) throw new WrongUsage(place.error);
	if (bitrate === undefined) return place.value;
	if (!SLCAN_SPEEDS.has(Number(bitrate)))
		throw new WrongUsage(`--bitrate is one of ${[...SLCAN_SPEEDS.keys()].join(', ')}`);
	return { ...place.value, bitrate: Number(bitrate) };
}

/** Who is asked: the modules of the description whose addresses are known, or whoever a search comes upon. */
async function asked(link: VehicleLink, type: VehicleType | null) {
	const told = type ? modulesToAsk(type, link.over) : [];
	if (told.length > 0)
		return told.map(({ address, name }) => ({ address: parseInt(address, 16), name, silent: null }));
	const found = await link.search();
	return found.ok ? found.value.map((module) => ({ ...module, name: null })) : found.error.text;
}

async function scanned(
	link: VehicleLink,
	place: LinkPlace,
	type: VehicleType | null
): Promise<Found | string> {
	const there = await asked(link, type);
	if (typeof there === 'string') return there;
	if (there.length === 0)
		return place.kind === 'doip'
			? 'the vehicle answers, and no module behind it: is the key on?'
			: `no module answers on the bus at ${place.bitrate / 1000} kbit/s: is the key on, and is that its speed?`;
	const found: Found = {
		link: place.kind === 'doip' ? 'doip' : 'can',
		modules: [],
		silent: [],
		broadcasts: []
	};
	const routes = type ? linkRoutesOf(type) : null;
	for (const { address, name, silent } of there) {
		const ids = idsOf(address, found.link, routes);
		if (silent) {
			found.silent.push({ address: ids.requestId, reason: silent });
			continue;
		}
		const { module, lost } = await readModule(link, hexAddress(address), name ?? '', () => false);
		if (module.answered)
			found.modules.push({
				...ids,
				name,
				software: module.software,
				trouble: module.trouble,
				codes: listed(module.exchanges).map((code) => decodeTold(code))
			});
		else
			found.silent.push({ address: ids.requestId, reason: module.trouble ?? 'The module did not answer.' });
		if (lost) return lost;
	}
	return found;
}

/** The codes of a module as it listed them, without those of which the status tells no fault. */
function listed(exchanges: readonly { request: string; response: string | null }[]) {
	const answer = exchanges.find(({ request, response }) => request.startsWith('1902') && response !== null);
	const bytes = parseHexBytes(answer?.response ?? '');
	const told = bytes.ok ? codesInResponse(bytes.value) : null;
	return told?.ok ? told.value.codes.filter(({ status }) => status === null || tellsOfFault(status)) : [];
}

const hexAddress = (address: number) => address.toString(16).toUpperCase().padStart(4, '0');

/** The identifiers of a conversation; on a network both sides speak of the module's address. */
function idsOf(address: number, link: Found['link'], routes: LinkRoutes | null) {
	const route = link === 'can' ? (routes?.can.get(address) ?? routeOfAddress(address)) : null;
	if (route) {
		const { request, response, extended } = route;
		return { requestId: idText(request, extended), responseId: idText(response, extended) };
	}
	const on = hexAddress(routes?.network.get(address) ?? address);
	return { requestId: on, responseId: on };
}

const asJson = ({ broadcasts, ...found }: Found) => ({
	...found,
	broadcasts: broadcasts.map((one) => ({ ...one, codes: one.codes.map(decodeHeavy) }))
});

function told({ modules, silent, broadcasts }: Found): string {
	const lines = modules.flatMap(({ requestId, name, software, trouble, codes }) => [
		`${strong(`${name ?? 'Module'} ${requestId}`)}${software ? `, software ${software}` : ''}: ${trouble ?? (codes.length === 0 ? 'no codes' : '')}\n`,
		...codes.map(codeText)
	]);
	for (const { address, reason } of silent) lines.push(`${strong(`Silent ${address}`)}: ${reason}\n`);
	for (const { source, codes } of broadcasts)
		lines.push(
			`${strong(`Sender ${source}`)}: ${codes.length === 0 ? 'no codes' : ''}\n`,
			...codes.map((code) => codeText(decodeHeavy(code)))
		);
	return lines.join('');
}
