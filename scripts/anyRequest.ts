import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import { anyThread } from '../src/lib/case/thread/anyEntry.fixture';
import { encodeChunk } from '../src/lib/core/live/chunk';
import { framePieces } from '../src/lib/core/live/pieces';
import { encodeCapture } from '../src/lib/core/scope/captureChunk';

/** One request to a server, as anybody might send it. */
export interface AnyRequest {
	method: string;
	path: string;
	headers: Record<string, string>;
	body: Uint8Array | null;
}

const ULID = fc.stringMatching(/^[0-9A-HJKMNP-TV-Z]{26}$/, { size: 'xsmall' });
const odd = fc.oneof(
	fc.constantFrom(
		'',
		'0',
		'-1',
		'1e300',
		'NaN',
		'null',
		'__proto__',
		'constructor',
		'..%2f..',
		'%00',
		'\u{1f6e0}'
	),
	fc.constantFrom('front-left', 'C0045', 'maker-ottaro', 'shop', 'renew-sensor', '1010', 'day', 'bay'),
	fc.string({ maxLength: 40, unit: 'binary' })
);
const text = (value: string) => new TextEncoder().encode(value);
const json = (value: unknown) => text(JSON.stringify(value) ?? '');

/** Pages and addresses below a case. */
const BELOW = [
	'',
	'/listen',
	'/read',
	'/read/lamp',
	'/watch',
	'/watch/road',
	'/watch/tyres',
	'/watch/bay',
	'/measure',
	'/measure/halve',
	'/measure/substitute',
	'/measure/look',
	'/measure/scope',
	'/reason',
	'/mend',
	'/mend/plan',
	'/mend/fit',
	'/mend/calibrate',
	'/prove',
	'/prove/drive',
	'/hand-over',
	'/case.json',
	'/stand-in',
	'/reason/why'
];
const SHOP = [
	'/',
	'/closed',
	'/cases/new',
	'/cases/bring',
	'/library',
	'/library/shop',
	'/library/reasoning',
	'/library/learned',
	'/library/equipment',
	'/library/frame-signals',
	'/library/aside',
	'/library/shops',
	'/tyres',
	'/figures',
	'/decode',
	'/codes',
	'/codes/C0045',
	'/codes/C0045/write',
	'/sign-in',
	'/decoder',
	'/preferences',
	'/healthz',
	'/readyz',
	'/metrics',
	'/me',
	'/people',
	'/people/log',
	'/people/log/file',
	'/people/programs',
	'/health',
	'/join',
	'/locked',
	'/sign-in/code'
];
/** Actions of forms, by the page that they stand on. */
const ACTIONS = [
	'/listen?/complaint',
	'/listen?/vehicle',
	'/listen?/lamps',
	'/listen?/works',
	'/listen?/tyres',
	'/mend?/repair',
	'/mend?/note',
	'/mend/calibrate?/hand',
	'/mend/calibrate?/waive',
	'/prove?/key',
	'/prove?/lamps',
	'/prove?/drive',
	'/prove?/returns',
	'/prove?/letGo',
	'/read?/address',
	'/reason?/policy',
	'/hand-over?/sign',
	'/hand-over?/unproven',
	'/hand-over?/release',
	'/hand-over?/comeback',
	'/listen?/nothing'
];
const SHOP_ACTIONS = [
	'/sign-in?/in',
	'/preferences?/theme',
	'/cases/new',
	'/cases/bring',
	'/library',
	'/library/reasoning',
	'/library/equipment',
	'/library/learned?/off',
	'/library/learned?/again',
	'/codes/C0045/write',
	'/library/shop?/forget',
	// All but the lock: it would shut out whoever asks.
	'/me?/password',
	'/me?/digits',
	'/me?/factor',
	'/me?/confirm',
	'/me?/end',
	'/people?/invite',
	'/people?/idle',
	'/people/programs?/make',
	'/people/programs?/revoke',
	'/join',
	'/locked?/open',
	'/sign-in/code',
	'/tyres'
];

/** @param caseIds cases that there are @param objects recordings, captures and entries that there are */
export function anyRequest(caseIds: readonly string[], objects: readonly string[]): fc.Arbitrary<AnyRequest> {
	const caseId = fc.oneof(
		{ weight: 6, arbitrary: fc.constantFrom(...caseIds) },
		ULID,
		odd.map(encodeURIComponent)
	);
	const object = fc.oneof(fc.constantFrom(...objects), ULID, odd.map(encodeURIComponent));
	const query = fc
		.array(
			fc.tuple(
				fc.constantFrom(
					'page',
					'at',
					'upto',
					'q',
					'case',
					'does',
					'place',
					'link',
					'correct',
					'scan',
					'key',
					'back',
					'live',
					'whole',
					'id',
					'for',
					'x-sveltekit-invalidated'
				),
				odd
			),
			{ maxLength: 4 }
		)
		.map((pairs) => (pairs.length > 0 ? `?${new URLSearchParams(pairs)}` : ''));
	const get = fc
		.tuple(
			fc.oneof(
				fc.tuple(caseId, fc.constantFrom(...BELOW)).map(([id, below]) => `/cases/${id}${below}`),
				fc.constantFrom(...SHOP),
				fc
					.tuple(
						caseId,
						object,
						fc.constantFrom(
							'/watch/%/samples',
							'/watch/%/csv',
							'/watch/%',
							'/measure/scope/%',
							'/measure/scope/%/samples',
							'/measure/scope/%/csv',
							'/measure/photo/%',
							'/read/log/%',
							'/read/log/%/file',
							'/read/line/%',
							'/read/line/%/1010'
						)
					)
					.map(([id, one, below]) => `/cases/${id}${below.replace('%', one)}`),
				odd.map((one) => `/${encodeURIComponent(one)}`),
				odd.map((one) => `/codes/${encodeURIComponent(one)}`)
			),
			fc.constantFrom('', '', '/__data.json'),
			query
		)
		.map(([path, data, asked]): AnyRequest => ({
			method: 'GET',
			path: `${path === '/' && data ? '' : path}${data}${asked}`,
			headers: { accept: data ? '*/*' : 'text/html' },
			body: null
		}));
	const post = (path: fc.Arbitrary<string>, body: fc.Arbitrary<Uint8Array>, type: string, method = 'POST') =>
		fc.tuple(path, body).map(([to, bytes]): AnyRequest => ({
			method,
			path: to,
			headers: { 'content-type': type, accept: 'application/json' },
			body: bytes
		}));
	const of = (below: string) => caseId.map((id) => `/cases/${id}${below}`);
	const sent = anyThread(1).map((thread) => {
		const entry = thread.at(-1);
		return {
			id: entry?.id,
			kind: entry?.kind,
			version: 1,
			observedAt: '2026-11-24T09:00:00.000Z',
			payload: entry?.payload,
			supersedes: null
		};
	});
	const withId = fc.tuple(sent, fc.oneof(ULID, object)).map(([entry, id]) => ({ ...entry, id }));
	const entry = fc.oneof(
		{ weight: 3, arbitrary: withId },
		fc.jsonValue({ maxDepth: 3 }),
		fc.tuple(withId, odd, fc.jsonValue()).map(([one, key, value]) => ({
			...one,
			[key]: value,
			payload: { ...(one.payload as object), [key]: value }
		}))
	);
	const jsonOr = (value: fc.Arbitrary<unknown>) =>
		fc.oneof(
			{ weight: 8, arbitrary: value.map(json) },
			fc.uint8Array({ maxLength: 60 }),
			fc.constant(text('{"a":')),
			fc.constant(text('['.repeat(5_000)))
		);
	const work = fc.record({
		do: fc.constantFrom('scan', 'key', 'record', 'mark', 'cancel', 'calibrate', 'nothing'),
		entryId: fc.oneof(ULID, odd, object),
		signals: fc.array(odd, { maxLength: 3 }),
		name: odd,
		label: odd,
		calibration: odd,
		said: fc.array(odd, { maxLength: 3 }),
		only: fc.constant('0000')
	});
	const fields = fc.array(
		fc.tuple(
			fc.oneof(
				fc.constantFrom(
					'entryId',
					'corrects',
					'why',
					'words',
					'vin',
					'odometerKm',
					'caseId',
					'worksId',
					'vehicleId',
					'typeId',
					'nickname',
					'plate',
					'linkAddress',
					'statement',
					'head',
					'title',
					'text',
					'username',
					'password',
					'proving',
					'theme',
					'address',
					'__superform_json',
					'__superform_id',
					'parts[0].name',
					'__proto__[x]',
					'a.b.c'
				),
				odd
			),
			fc.oneof(odd, ULID, fc.constantFrom('[{"a":1},-1]', '[[1,2],3]', '{}', '[-2]', '[{"__proto__":1},2]'))
		),
		{ maxLength: 6 }
	);
	const action = fc.oneof(
		fc.tuple(caseId, fc.constantFrom(...ACTIONS)).map(([id, one]) => `/cases/${id}${one}`),
		fc.constantFrom(...SHOP_ACTIONS)
	);
	const multipart = fields.map((pairs) =>
		text(
			pairs
				.map(
					([name, value]) => `--line\r\ncontent-disposition: form-data; name="${name}"\r\n\r\n${value}\r\n`
				)
				.join('') + '--line--\r\n'
		)
	);
	const framed = fc
		.tuple(
			fc.oneof(
				withId.map(() => ({})),
				fc.record({
					id: fc.oneof(ULID, object),
					name: odd,
					fileName: fc.constant('a.csv'),
					bytes: fc.nat(),
					remember: fc.constant(null),
					at: fc.constant('module'),
					teeth: fc.constant(null),
					positions: fc.constant([]),
					knownGood: fc.boolean()
				})
			),
			fc.array(piece, { maxLength: 3 })
		)
		.map(([about, pieces]) => framePieces([json(about), ...pieces]));
	return fc.oneof(
		{ weight: 6, arbitrary: get },
		{ weight: 5, arbitrary: post(of('/entries'), jsonOr(entry), 'application/json') },
		{ weight: 2, arbitrary: post(of('/work'), jsonOr(work), 'application/json') },
		post(
			of('/comeback'),
			jsonOr(fc.record({ id: fc.oneof(ULID, object), worksId: ULID, entry })),
			'application/json'
		),
		post(
			of('/measure/read'),
			jsonOr(fc.record({ measurement: odd, position: odd, place: odd, mode: odd, black: odd })),
			'application/json'
		),
		post(
			of('/measure/scope/take'),
			jsonOr(
				fc.record({
					id: ULID,
					name: odd,
					positions: fc.array(odd, { maxLength: 2 }),
					at: odd,
					rateHz: fc.double(),
					durationS: fc.double(),
					knownGood: fc.boolean()
				})
			),
			'application/json'
		),
		{ weight: 2, arbitrary: post(of('/watch/import'), framed, 'application/octet-stream') },
		{ weight: 2, arbitrary: post(of('/measure/scope/import'), framed, 'application/octet-stream') },
		post(
			fc.tuple(of('/measure/photo'), fc.oneof(ULID, object)).map(([path, id]) => `${path}?id=${id}`),
			picture,
			'image/jpeg'
		),
		post(
			fc.tuple(caseId, object).map(([id, one]) => `/cases/${id}/read/log/${one}/file`),
			fc.oneof(
				fc.uint8Array({ maxLength: 90 }),
				fc.constant(new Uint8Array(gzipSync('(1.000000) bus0 7E0#031902FF00000000\n')))
			),
			'application/gzip',
			'PUT'
		),
		{
			weight: 2,
			arbitrary: post(
				action,
				fields.map((pairs) => text(new URLSearchParams(pairs as [string, string][]).toString())),
				'application/x-www-form-urlencoded'
			)
		},
		{
			weight: 2,
			arbitrary: post(
				action,
				fc.oneof(
					multipart,
					fc.tuple(multipart, fc.nat(200)).map(([whole, cut]) => whole.slice(0, cut)),
					fc.uint8Array({ maxLength: 90 })
				),
				'multipart/form-data; boundary=line'
			)
		},
		post(action, multipart, 'multipart/form-data'),
		post(fc.constant('/cases/bring'), bundle, 'multipart/form-data; boundary=line'),
		post(
			fc.constant('/decoder'),
			jsonOr(fc.record({ spellings: fc.array(odd, { maxLength: 5 }) })),
			'application/json'
		),
		post(
			fc.constant('/library/frame-signals'),
			jsonOr(fc.record({ do: odd, id: odd, rule: fc.jsonValue() })),
			'application/json'
		),
		post(fc.constant('/page-trouble'), jsonOr(fc.record({ path: odd, text: odd })), 'application/json'),
		fc
			.tuple(get, fc.constantFrom('PUT', 'DELETE', 'PATCH', 'OPTIONS', 'HEAD'))
			.map(([one, method]) => ({ ...one, method }))
	);
}

const head = (bytes: Uint8Array, change: string) => {
	const copy = bytes.slice();
	const at = new TextDecoder('latin1').decode(copy).indexOf('"rows":');
	if (at > 0) copy.set(text(change), at);
	return copy;
};
const small = encodeChunk({
	timeS: Float64Array.of(0, 1, 2),
	channels: new Map([['vehicle', Float64Array.of(1, 2, 3)]])
});
/** Pieces that may stand in an import: sound, cut, and such that promise more than they hold. */
const piece = fc.oneof(
	fc.constant(small),
	fc.constant(head(small, '"rows":9')),
	fc.constant(
		encodeCapture({
			rateHz: 1000,
			startS: 0,
			channels: [{ name: 'rear_left', volts: new Float32Array(200) }]
		})
	),
	fc.nat(small.length).map((cut) => small.slice(0, cut)),
	fc.uint8Array({ maxLength: 80 })
);
const picture = fc.oneof(
	fc.uint8Array({ maxLength: 80 }),
	fc.constant(text('<svg xmlns="http://www.w3.org/2000/svg"><rect width="9e9" height="9e9"/></svg>')),
	fc.uint8Array({ maxLength: 60 }).map((rest) => Uint8Array.from([0xff, 0xd8, 0xff, ...rest])),
	fc
		.uint8Array({ maxLength: 60 })
		.map((rest) => Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...rest]))
);
const bundle = fc
	.oneof(
		fc.uint8Array({ maxLength: 80 }),
		fc
			.dictionary(fc.constantFrom('case.json', 'hashes.txt', 'photos/x.jpg', '../x'), fc.string().map(text))
			.map((files) => zipSync(files))
	)
	.map((zip) => {
		const [before, after] = [
			'--line\r\ncontent-disposition: form-data; name="bundle"; filename="a.zip"\r\n\r\n',
			'\r\n--line--\r\n'
		].map(text) as [Uint8Array, Uint8Array];
		return Uint8Array.from([...before, ...zip, ...after]);
	});
