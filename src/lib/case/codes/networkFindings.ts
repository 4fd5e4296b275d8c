import { accusationIn } from '../../../../library/accusations';
import type { VehicleType } from '../../../../library';
import { sourcesFor, titleSource, type CodeBook } from '../../../../library/codes';
import { wheelReaderOf } from '../../../../library/measurePoints';
import { makersAlone } from '../../../../library/exposed';
import { cautionWords } from '../../../../library/safety';
import { codeNumber, codeName, suffixOf } from '../../core/codes/codeId';
import { decodeStatus } from '../../core/codes/status';
import { sharedFeeds, type SharedFeed } from '../../core/network/sharedFeeds';
import type { NetworkScan } from '../entries/network-scan/payload';
import { lowerFirst, namesOf, upperFirst } from '../words';
import type { NetworkFinding } from './networkFinding';
import { wheelsTogether } from './wheelsTogether';

const KIND = { fuse: 'fuse', ground: 'ground point', splice: 'splice', segment: 'bus' } as const;
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
	const accused = accusations(scan, type, book);
	const left = (module: Module) => isLeftToMaker(module, type);
	return [
		...silences(scan, type),
		...togetherIn(scan, type, book),
		...leftToMaker(scan, type, book, accused),
		...contradictions(accused.filter(({ by, sender }) => !left(by) && !left(sender))),
		...consequences(accused.filter(({ sender }) => !left(sender)))
	];
}

/** Wheels that fail at once in a scan, with what they share that nobody has looked at. */
export const togetherIn = (
	scan: NetworkScan,
	type: VehicleType | null,
	book: CodeBook,
	looked?: ReadonlySet<string>
): NetworkFinding[] => (type && wheelsTogether(type, wheelsWithCodes(scan, type, book), looked)) ?? [];

/** Wheels whose sensor’s circuit has a code in the module that reads them. */
function wheelsWithCodes(scan: NetworkScan, type: VehicleType, book: CodeBook): string[] {
	const reader = wheelReaderOf(type);
	const codes = scan.modules.find(({ address }) => address === reader?.address)?.codes ?? [];
	const found = codes.flatMap(({ dtc }) => {
		const asked = { code: codeNumber(dtc), failureType: suffixOf(dtc), maker: type.maker };
		const source = titleSource(book, asked);
		return source?.group === 'wheel-speed' && source.corner ? [source.corner] : [];
	});
	return type.wheels.map(({ position }) => position).filter((position) => found.includes(position));
}

const isLeftToMaker = ({ address }: Module, type: VehicleType): boolean => {
	const role = type.modules.find((module) => module.address === address)?.role;
	return role !== undefined && makersAlone(type, role) !== null;
};

/**
 * Modules whose maker alone says how they are worked on, where they are silent or fail: nobody is sent to them. A code that
 * blames another module is no fault of theirs, unless that one answers us and is said to be missing.
 */
function leftToMaker(
	scan: NetworkScan,
	type: VehicleType,
	book: CodeBook,
	accused: readonly Accusation[]
): NetworkFinding[] {
	const isOwn = (module: Module, dtc: string) =>
		blamedBy(dtc, type, book) === null ||
		accused.some(({ by, text, says }) => by === module && text === codeName(dtc) && says === 'missing');
	return scan.modules
		.filter(
			(module) =>
				isLeftToMaker(module, type) &&
				(!module.answered || module.codes.some(({ dtc }) => isOwn(module, dtc)))
		)
		.map((module) => ({
			title: module.answered
				? `${module.name} tells of a fault: it is left to its maker’s procedure`
				: `${module.name} is silent: it is left to its maker’s procedure`,
			todo: cautionWords(['maker-only']),
			text: 'What it shares with others (a ground point, a splice, the bus) is looked at where they are.'
		}));
}

/** Which module a code names as the cause, and what it says of it; null where it names none. */
function blamedBy(dtc: string, type: VehicleType, book: CodeBook): ReturnType<typeof accusationIn> {
	const code = codeNumber(dtc);
	const asked = { code, failureType: suffixOf(dtc), maker: type.maker };
	const source = sourcesFor(book, asked).find((one) => one.sender !== null) ?? null;
	return accusationIn(code, source);
}

/** Of a module that is left to its maker nothing is said here but what it shares with others. */
function silences(scan: NetworkScan, type: VehicleType): NetworkFinding[] {
	const silent = scan.modules.filter((module) => !module.answered && !isLeftToMaker(module, type));
	if (silent.length === 0) return [];
	const shared = sharedFeeds(
		scan.modules
			.filter((module) => !isLeftToMaker(module, type) || module.answered)
			.map(({ address, name, answered }) => ({
				name: lowerFirst(name),
				answered,
				suppliedBy: type.modules.find((module) => module.address === address)?.suppliedBy ?? []
			}))
	);
	const own = shared.filter((s) => s.answering.length === 0);
	const works = shared.filter((s) => s.answering.length > 0);
	const who = namesOf(silent.map((module) => lowerFirst(module.name)));
	const together = own.filter((s) => s.silent.length === silent.length);
	const good = works.map((s) => `${feedName(s)} works for ${namesOf(s.answering)}`);
	const upTo =
		good.length > 0
			? ` ${upperFirst(namesOf(good))}: of ${good.length === 1 ? 'that' : 'those'} only the branch can be broken.`
			: '';
	if (silent.length > 1 && together.length > 0) {
		const list = together.map((s) => `${feedName(s)} (${s.feed.where})`);
		return [
			{
				title: `${upperFirst(who)} are silent and share ${namesOf(together.map(feedName))}`,
				todo: `Look at ${namesOf(list)} before any module.`,
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
					? `Look at ${namesOf(list)}, then at its own branch and plug.`
					: 'Look at its own branch, plug, feed and ground.',
			text: (list.length > 0 ? `Only it hangs on ${list.length === 1 ? 'that' : 'those'}.` : '') + upTo
		}
	];
}

/** A code in one module that names another as the cause. */
interface Accusation {
	by: Module;
	sender: Module;
	/** `U0415-81`. */
	text: string;
	/** Heard nothing at all, or heard what is marked as not valid. */
	says: 'missing' | 'invalid';
	now: boolean;
}
type Module = NetworkScan['modules'][number];

/** Codes that name a sender which answered us. */
function accusations(scan: NetworkScan, type: VehicleType, book: CodeBook): Accusation[] {
	return scan.modules.flatMap((by) =>
		by.codes.flatMap(({ dtc, status }): Accusation[] => {
			const told = blamedBy(dtc, type, book);
			if (!told) return [];
			const { says } = told;
			const address = type.modules.find((module) => module.role === told.sender)?.address;
			const sender = scan.modules.find((module) => module.address === address && module.answered);
			return sender ? [{ by, sender, says, text: codeName(dtc), now: decodeStatus(status).testFailed }] : [];
		})
	);
}

/** A module says that it hears nothing from a sender – which answers us. */
const contradictions = (accused: Accusation[]): NetworkFinding[] =>
	accused
		.filter(({ says }) => says === 'missing')
		.map(({ by, sender, text, now }) => {
			const [who, other] = [lowerFirst(by.name), lowerFirst(sender.name)];
			return {
				title: `${by.name} says that ${other} is missing, yet it answers us`,
				todo: now
					? `Look at the branch of ${who}, then at what ${other} sends.`
					: `Look at supply, ground and plug of ${other}: it was gone for a while.`,
				text: now
					? `${text} fails at this moment: the fault is between the two, not in the supply of ${other}.`
					: `${text} is history.`
			};
		});

/** More modules than this are counted in a title, and named below it. */
const MOST_NAMED = 3;

/** Modules that call a sender's data invalid: they follow the sender's own codes, or contradict it where it has none. */
function consequences(accused: Accusation[]): NetworkFinding[] {
	const invalid = accused.filter(({ says }) => says === 'invalid');
	return [...new Set(invalid.map(({ sender }) => sender))].map((sender) => {
		const ofSender = invalid.filter((one) => one.sender === sender);
		const other = lowerFirst(sender.name);
		const all = namesOf(ofSender.map(({ by }) => lowerFirst(by.name)));
		const many = ofSender.length > MOST_NAMED;
		const who = many ? `${ofSender.length} modules` : all;
		const these = many ? ` They are ${all}.` : '';
		const codes = namesOf([...new Set(ofSender.map(({ text }) => text))]);
		const own = sender.codes.map(({ dtc }) => codeName(dtc));
		if (own.length > 0) {
			return {
				title: `${codes} in ${who} ${ofSender.length === 1 ? 'follows' : 'follow'} from ${other}`,
				todo: `Do ${namesOf(own)} in ${other} first.`,
				text: `${sender.name} marks its data as not valid because of its own fault; its listeners only say so.${these}`
			};
		}
		return {
			title: `${upperFirst(who)} ${ofSender.length === 1 ? 'calls' : 'call'} the data of ${other} invalid, yet it knows of no fault`,
			todo: `Look at coding and calibration of ${other}, then at software that does not fit.`,
			text: `${codes}: electrically nothing is wrong there.${these}`
		};
	});
}
