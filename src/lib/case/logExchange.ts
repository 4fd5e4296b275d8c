import { identifiers } from '../../../library';
import { parseHexBytes, spacedHex, hex } from '../core/bytes';
import { explainMessage } from '../core/uds/explainMessage';
import { NEGATIVE, negativeResponseText } from '../core/uds/negativeResponse';
import { asksForSilence, requestText } from '../core/uds/services';
import type { PayloadOf } from './entry';

/** A request and its answer in words, and every byte of both by its name. */
export interface ExplainedExchange {
	time: string;
	route: string;
	asked: string;
	outcome: string;
	refused: boolean;
	messages: { direction: string; fields: { from: number; bytes: string; name: string; text: string }[] }[];
}

type Kept = PayloadOf<'frame-log'>['exchanges'][number];

const bytesOf = (text: string | null): Uint8Array | null => {
	const parsed = text === null ? null : parseHexBytes(text);
	return parsed?.ok ? parsed.value : null;
};

const fieldsOf = (bytes: Uint8Array) =>
	explainMessage(bytes, (id) => identifiers.get(id) ?? null).map(({ from, length, name, text }) => ({
		from,
		bytes: spacedHex(hex(bytes.subarray(from, from + length))),
		name,
		text
	}));

export function explainLogExchange({
	timeS,
	requestId,
	responseId,
	request,
	response,
	waits
}: Kept): ExplainedExchange {
	const asked = bytesOf(request);
	const answer = bytesOf(response);
	const refused = answer?.[0] === NEGATIVE;
	const waited = waits > 0 ? `, after it said ${waits} times that it is still working` : '';
	const outcome = refused
		? `refused: ${negativeResponseText(answer?.[2] ?? 0)}`
		: answer
			? `${answer.length} bytes`
			: asked && asksForSilence(asked)
				? 'no answer, none was wanted'
				: 'no answer';
	const messages: ExplainedExchange['messages'] = [];
	if (asked) messages.push({ direction: `Request on ${requestId}`, fields: fieldsOf(asked) });
	if (answer) messages.push({ direction: `Answer on ${responseId}`, fields: fieldsOf(answer) });
	return {
		time: `${timeS.toFixed(3)} s`,
		route: `${requestId ?? 'not in the log'} → ${responseId ?? 'nobody'}`,
		asked: asked ? requestText(asked) : 'its request is not in the log',
		outcome: outcome + waited,
		refused,
		messages
	};
}
