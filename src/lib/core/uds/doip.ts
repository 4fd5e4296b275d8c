import { hex } from '../bytes';

/**
 * Framing of diagnostics over TCP, ISO 13400-2: an eight-byte header (version, inverse version, payload type, payload
 * length) and the payload. Pure: bytes in, messages out, for the vehicle side and the tester side alike.
 */
export const DOIP_VERSION = 0x02;
export const DOIP_PORT = 13400;
export const HEADER_LENGTH = 8;
/** Longest payload either side of Jaldi accepts, in bytes: far above any diagnostic answer, far below harm. */
export const MAX_PAYLOAD = 0x10000;

export const PayloadType = {
	headerNack: 0x0000,
	identificationRequest: 0x0001,
	announcement: 0x0004,
	routingActivationRequest: 0x0005,
	routingActivationResponse: 0x0006,
	aliveCheckRequest: 0x0007,
	aliveCheckResponse: 0x0008,
	diagnosticMessage: 0x8001,
	diagnosticAck: 0x8002,
	diagnosticNack: 0x8003
} as const;

export const HeaderNack = {
	incorrectPattern: 0x00,
	unknownType: 0x01,
	tooLarge: 0x02,
	invalidLength: 0x04
} as const;
export const RoutingCode = { unknownSource: 0x00, unsupportedType: 0x06, activated: 0x10 } as const;
export const DiagnosticNack = {
	invalidSource: 0x02,
	unknownTarget: 0x03,
	tooLarge: 0x04,
	unreachable: 0x06
} as const;

/** Diagnostic message nack codes in words (ISO 13400-2 table 26). */
export function diagnosticNackText(code: number): string {
	switch (code) {
		case DiagnosticNack.invalidSource:
			return 'the vehicle does not accept our address';
		case DiagnosticNack.unknownTarget:
			return 'the vehicle knows no module at this address';
		case DiagnosticNack.tooLarge:
			return 'the message is too large';
		case DiagnosticNack.unreachable:
			return 'the module cannot be reached';
		default:
			return `the gateway refused with code ${code.toString(16).padStart(2, '0')}`;
	}
}

export interface DoipMessage {
	type: number;
	payload: Uint8Array;
}

/** One message as bytes on the wire. */
export function encodeDoip(type: number, payload: ArrayLike<number>): Uint8Array {
	const bytes = new Uint8Array(HEADER_LENGTH + payload.length);
	const view = new DataView(bytes.buffer);
	bytes[0] = DOIP_VERSION;
	bytes[1] = DOIP_VERSION ^ 0xff;
	view.setUint16(2, type);
	view.setUint32(4, payload.length);
	bytes.set(payload, HEADER_LENGTH);
	return bytes;
}

/** A diagnostic message: source address, target address (two bytes each), then the service bytes. */
export function encodeDiagnostic(source: number, target: number, uds: ArrayLike<number>): Uint8Array {
	return encodeDoip(PayloadType.diagnosticMessage, [...word(source), ...word(target), ...Array.from(uds)]);
}

export const word = (value: number): [number, number] => [(value >> 8) & 0xff, value & 0xff];
export const readWord = (bytes: Uint8Array, at: number): number =>
	((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0);

export type DoipStreamError = { nack: number; reason: string };

/**
 * Cuts a TCP byte stream into messages. Feed it whatever arrives; it keeps the rest. Garbage is an error value naming
 * the nack the standard asks for; after one the stream can no longer be trusted and must be closed.
 */
export class DoipReader {
	private held = new Uint8Array(0);

	push(chunk: Uint8Array): { messages: DoipMessage[]; error: DoipStreamError | null } {
		const bytes = new Uint8Array(this.held.length + chunk.length);
		bytes.set(this.held);
		bytes.set(chunk, this.held.length);
		const messages: DoipMessage[] = [];
		let at = 0;
		while (bytes.length - at >= HEADER_LENGTH) {
			const view = new DataView(bytes.buffer, at);
			const version = view.getUint8(0);
			if ((version ^ 0xff) !== view.getUint8(1) || version === 0) {
				return this.stop(messages, HeaderNack.incorrectPattern, 'bytes that are no diagnostic header');
			}
			const length = view.getUint32(4);
			if (length > MAX_PAYLOAD) {
				return this.stop(messages, HeaderNack.tooLarge, `a message of ${length} bytes, more than allowed`);
			}
			if (bytes.length - at < HEADER_LENGTH + length) break;
			messages.push({
				type: view.getUint16(2),
				payload: bytes.slice(at + HEADER_LENGTH, at + HEADER_LENGTH + length)
			});
			at += HEADER_LENGTH + length;
		}
		this.held = bytes.slice(at);
		return { messages, error: null };
	}

	private stop(messages: DoipMessage[], nack: number, reason: string) {
		this.held = new Uint8Array(0);
		return { messages, error: { nack, reason } };
	}
}

/** What a vehicle says of itself when it is asked who is there (ISO 13400-2, vehicle announcement). */
export interface Announcement {
	/** As it tells it; empty where its number is not set. */
	vin: string;
	/** Its logical address. */
	address: number;
	/** Of the entity, as hex: tells two vehicles apart that know no number. */
	entity: string;
}

const VIN_LENGTH = 17;
const ENTITY_LENGTH = 6;
const PRINTABLE = /^[0-9A-Z]{17}$/;

export function encodeAnnouncement({ vin, address, entity }: Announcement): Uint8Array {
	const number = Array.from(vin.padEnd(VIN_LENGTH, '\0').slice(0, VIN_LENGTH), (sign) => sign.charCodeAt(0));
	const id = Array.from(
		{ length: ENTITY_LENGTH },
		(_, i) => parseInt(entity.slice(2 * i, 2 * i + 2), 16) || 0
	);
	// The group's identifier is the entity's own; no further action is asked for.
	return encodeDoip(PayloadType.announcement, [...number, ...word(address), ...id, ...id, 0x00]);
}

/** One datagram as an announcement; null for anything else. */
export function readAnnouncement(datagram: Uint8Array): Announcement | null {
	const { messages, error } = new DoipReader().push(datagram);
	const [message] = messages;
	if (error || messages.length !== 1 || message?.type !== PayloadType.announcement) return null;
	const { payload } = message;
	if (payload.length !== 32 && payload.length !== 33) return null;
	const number = String.fromCharCode(...payload.subarray(0, VIN_LENGTH));
	return {
		vin: PRINTABLE.test(number) ? number : '',
		address: readWord(payload, VIN_LENGTH),
		entity: hex(payload.slice(VIN_LENGTH + 2, VIN_LENGTH + 2 + ENTITY_LENGTH))
	};
}
