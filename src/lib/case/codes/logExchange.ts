import { identifiers } from '../../../../library';
import { parseHexBytes, spacedHex, hex } from '../../core/bytes';
import { explainMessage } from '../../core/uds/explainMessage';
import { NEGATIVE, negativeResponseText } from '../../core/uds/negativeResponse';
import { asksForSilence, requestText } from '../../core/uds/services';
import type { PayloadOf } from '../entries/entry';
import type { ScannedModule } from '../entries/network-scan/payload';

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

/** An exchange of a log. */
export function explainLogExchange({ timeS, requestId, responseId, ...exchange }: Kept): ExplainedExchange {
	return {
		...explain(exchange, `Request on ${requestId}`, `Answer on ${responseId}`),
		time: `${timeS.toFixed(3)} s`,
		route: `${requestId ?? 'not in the log'} → ${responseId ?? 'nobody'}`
	};
}

/** An exchange of a scan of ours. @param place its number on the line, from 1 */
export const explainScanExchange = (
	{ request, response }: ScannedModule['exchanges'][number],
	place: number
): ExplainedExchange => ({
	...explain({ request, response, waits: 0 }, 'Request', 'Answer'),
	time: String(place),
	route: ''
});

function explain(
	{ request, response, waits }: Pick<Kept, 'request' | 'response' | 'waits'>,
	requestWords: string,
	answerWords: string
): Omit<ExplainedExchange, 'time' | 'route'> {
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
	if (asked) messages.push({ direction: requestWords, fields: fieldsOf(asked) });
	if (answer) messages.push({ direction: answerWords, fields: fieldsOf(answer) });
	return {
		asked: asked ? requestText(asked) : 'its request is not in the log',
		outcome: outcome + waited,
		refused,
		messages
	};
}
