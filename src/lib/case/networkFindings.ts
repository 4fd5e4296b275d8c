import type { VehicleType } from '../../../library';
import { sourcesFor, type CodeBook } from '../../../library/codes';
import { codeText, codeWithSuffix, failureTypeByte } from '../core/codes/dtc';
import { decodeStatus } from '../core/codes/status';
import { sharedFeeds, type SharedFeed } from '../core/network/sharedFeeds';
import type { NetworkScan } from './entry';
import { upperFirst, lowerFirst } from './words';

/** Something that the answers and silences of a scan say together. */
export interface NetworkFinding {
	title: string;
	/** What to do about it, in one sentence. */
	todo: string;
	/** Why, and what else it shows. */
	text: string;
}

const KIND = { fuse: 'fuse', ground: 'ground point', splice: 'splice', segment: 'bus' } as const;
const names = (list: string[]) =>
	list.length < 2 ? (list[0] ?? '') : `${list.slice(0, -1).join(', ')} and ${list.at(-1)}`;
const feedName = ({ feed }: SharedFeed) =>
	feed.kind === 'segment' ? `the ${feed.name}` : `${KIND[feed.kind]} ${feed.name}`;

/**
 * What silent modules share by the vehicle's network description, and modules whose word another's answer contradicts.
 * Nothing where the vehicle's type is not described.
 */
export function networkFindings(
	scan: NetworkScan,
	type: VehicleType | null,
	book: CodeBook
): NetworkFinding[] {
	if (!type) return [];
	return [...silences(scan, type), ...contradictions(scan, type, book)];
}

function silences(scan: NetworkScan, type: VehicleType): NetworkFinding[] {
	const silent = scan.modules.filter((module) => !module.answered);
	if (silent.length === 0) return [];
	const shared = sharedFeeds(
		scan.modules.map(({ address, name, answered }) => ({
			name: lowerFirst(name),
			answered,
			hangsOn: type.modules.find((module) => module.address === address)?.hangsOn ?? []
		}))
	);
	const own = shared.filter((s) => s.answering.length === 0);
	const works = shared.filter((s) => s.answering.length > 0);
	const who = names(silent.map((module) => lowerFirst(module.name)));
	const together = own.filter((s) => s.silent.length === silent.length);
	const good = works.map((s) => `${feedName(s)} works for ${names(s.answering)}`);
	const upTo =
		good.length > 0
			? ` ${upperFirst(names(good))}: of ${good.length === 1 ? 'that' : 'those'} only the branch can be broken.`
			: '';
	if (silent.length > 1 && together.length > 0) {
		const list = together.map((s) => `${feedName(s)} (${s.feed.where})`);
		return [
			{
				title: `${upperFirst(who)} are silent and share ${names(together.map(feedName))}`,
				todo: `Look at ${names(list)} before any module.`,
				text: `Nothing that answers hangs on ${list.length === 1 ? 'it' : 'them'}.${upTo}`
			}
		];
	}
	if (silent.length > 1) {
		return [
			{
				title: `${upperFirst(who)} are silent and share nothing that is broken for all`,
				todo: 'Look at the supply and the branch of each.',
				text: `Two faults, or one that this vehicle’s description does not show.${upTo}`
			}
		];
	}
	const list = own.map((s) => `${feedName(s)} (${s.feed.where})`);
	return [
		{
			title: `${upperFirst(who)} is silent, the others answer`,
			todo:
				list.length > 0
					? `Look at ${names(list)}, then at its own branch and plug.`
					: 'Look at its own branch, plug, feed and ground.',
			text: (list.length > 0 ? `Only it hangs on ${list.length === 1 ? 'that' : 'those'}.` : '') + upTo
		}
	];
}

/** A module says now that it hears nothing from a sender – which answers us. */
function contradictions(scan: NetworkScan, type: VehicleType, book: CodeBook): NetworkFinding[] {
	return scan.modules.flatMap((module) =>
		module.codes.flatMap(({ dtc, status }): NetworkFinding[] => {
			const code = codeText(dtc);
			if (!/^U01/.test(code)) return [];
			const asked = { code, failureType: failureTypeByte(dtc), maker: type.maker };
			const role = sourcesFor(book, asked).find((source) => source.sender !== null)?.sender;
			const sender = type.modules.find((m) => m.role === role);
			const answered = scan.modules.find((m) => m.address === sender?.address)?.answered;
			if (!sender || !answered) return [];
			const now = decodeStatus(status).testFailed;
			return [
				{
					title: `${module.name} says that ${lowerFirst(sender.name)} is missing, yet it answers us`,
					todo: now
						? `Look at the branch of ${lowerFirst(module.name)}, then at what ${lowerFirst(sender.name)} sends.`
						: `Look at supply, ground and plug of ${lowerFirst(sender.name)}: it was gone for a while.`,
					text: now
						? `${codeWithSuffix(dtc)} fails at this moment: the fault is between the two, not in the supply of ${lowerFirst(sender.name)}.`
						: `${codeWithSuffix(dtc)} is history.`
				}
			];
		})
	);
}
