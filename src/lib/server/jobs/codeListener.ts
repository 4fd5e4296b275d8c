import { codeKey } from '../../core/codes/codeKey';
import { MOST_HEARD, type HeardCode } from '../../case/entries/live-recording/payload';
import { decodeStatus, tellsOfFault } from '../../core/codes/status';
import { NEGATIVE } from '../../core/uds/negativeResponse';
import { parseCodeList, ReadCodes, type CodeList } from '../../core/uds/readCodes';
import { linkIsLost, type VehicleLink } from '../../link/vehicleLink';

/** One module is asked this often, all of them in turn: seldom enough to leave the line to the signals. */
const ASK_EVERY_S = 0.5;
/** One that was silent is left alone for so long: waiting for it would tear holes into the recording. */
const SILENT_PAUSE_S = 20;
const TEST_RAN_BIT = 0x10;

/** What of a status is news to whoever drives: whether it fails, and whether its test has run. */
const newsOf = (status: number, availabilityMask: number): string =>
	`${tellsOfFault(status)} ${decodeStatus(status).testFailed} ${
		(availabilityMask & TEST_RAN_BIT) !== 0 && decodeStatus(status).notTestedSinceClear
	}`;

/**
 * Listens to what all modules say of their codes while a recording runs, one module after the other, and keeps what
 * changes: a code that comes back is heard while the vehicle still rolls. A module that does not answer is left alone for a
 * while.
 */
export class CodeListener {
	readonly heard: HeardCode[] = [];
	private readonly known = new Map<string, string>();
	/** What each module listed the time before: a code that it lists no more has passed. */
	private readonly listed = new Map<string, readonly string[]>();
	private readonly byMask = new Set<string>();
	private readonly silentUntilS = new Map<string, number>();
	private next = 0;
	private lastS = -Infinity;

	/** @param modules their addresses, four hex digits */
	constructor(
		private readonly link: VehicleLink,
		private readonly modules: readonly string[]
	) {}

	/**
	 * Asks the module whose turn it is, if it is time.
	 *
	 * @param kmh vehicle speed now; null where it was not read
	 * @returns why the line was lost; null where it was not
	 */
	async ask(timeS: number, kmh: number | null): Promise<string | null> {
		const address = this.modules[this.next % Math.max(1, this.modules.length)];
		if (address === undefined || timeS - this.lastS < ASK_EVERY_S) return null;
		this.lastS = timeS;
		this.next += 1;
		if (timeS < (this.silentUntilS.get(address) ?? -Infinity)) return null;
		const part = this.byMask.has(address) ? [ReadCodes.byMask, 0xff] : [ReadCodes.supported];
		const answer = await this.link.request(parseInt(address, 16), [0x19, ...part]);
		if (!answer.ok) {
			this.silentUntilS.set(address, timeS + SILENT_PAUSE_S);
			return linkIsLost(answer.error) ? answer.error.text : null;
		}
		// Not every module can list all that it knows; each can list what has any bit set.
		if (answer.value[0] === NEGATIVE) this.byMask.add(address);
		else {
			const list = parseCodeList(answer.value);
			if (list.ok) this.hear(address, list.value, { atS: Math.max(0, timeS), kmh });
		}
		return null;
	}

	private hear(
		address: string,
		{ availabilityMask, codes }: CodeList,
		now: Pick<HeardCode, 'atS' | 'kmh'>
	): void {
		const gone = (this.listed.get(address) ?? []).filter((dtc) => !codes.some((one) => one.dtc === dtc));
		this.listed.set(
			address,
			codes.map(({ dtc }) => dtc)
		);
		for (const { dtc, status } of [...codes, ...gone.map((dtc) => ({ dtc, status: 0 }))]) {
			const key = codeKey({ address, dtc });
			const news = newsOf(status, availabilityMask);
			const before = this.known.get(key);
			this.known.set(key, news);
			// What was so from the start is news only where it is a fault.
			if (before === news || (before === undefined && !tellsOfFault(status))) continue;
			if (this.heard.length < MOST_HEARD) this.heard.push({ ...now, address, dtc, status });
		}
	}
}
