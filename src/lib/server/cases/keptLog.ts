import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { MOST_KEPT_LOG_BYTES } from '../../case/thread/keptLimits';
import { isFrameLog, SNIFF_LENGTH } from '../../core/bus/isFrameLog';

const unpack = promisify(gunzip);

/** A packed log as text; null where it is no gzip, or grows beyond what is kept. */
export async function unpackedLog(packed: Uint8Array): Promise<Uint8Array<ArrayBuffer> | null> {
	const log = await unpack(packed, { maxOutputLength: MOST_KEPT_LOG_BYTES }).catch(() => null);
	return log && new Uint8Array(log);
}

/** Hash of a packed log, unpacked; null where it cannot be. */
export async function logHash(packed: Uint8Array): Promise<string | null> {
	const log = await unpackedLog(packed);
	return log && createHash('sha256').update(log).digest('hex');
}

/** Whether its beginning reads like frames, one a line. */
export const isLog = (log: Uint8Array): boolean =>
	!log.subarray(0, SNIFF_LENGTH).includes(0) &&
	isFrameLog(new TextDecoder().decode(log.subarray(0, SNIFF_LENGTH)));
