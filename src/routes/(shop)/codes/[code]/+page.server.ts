import { error } from '@sveltejs/kit';
import { codeSources } from '$lib/case/codes/codeSources';
import { answerCode, codeOfSlug, slugOf } from '$lib/case/codes/decoderAnswer';
import { decodeCode } from '$lib/case/codes/decoded';
import { hexByte } from '$lib/core/bytes';
import { codeToNumber } from '$lib/core/codes/dtc';
import { numberOf } from '$lib/core/codes/codeId';
import { codeCalled, formatBytes, formatSpelling, type AnyCode } from '$lib/core/codes/spelling';
import { decodeStatus, STATUS_BITS, STATUS_WORDS } from '$lib/core/codes/status';
import { loadCase, memberHere } from '$lib/server/cases/access';
import { mayEditCodes, mayWrite } from '$lib/server/accounts/members';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { olderNumbers } from '$lib/core/codes/diagnosticMessage';
import { numbersOf } from '$lib/case/codes/answerText';
import { shippedPacks, titleSource } from '$library/codes';
import { failureCategory } from '$library/failureTypes';
import { makersAlone } from '$library/exposed';
import { vehicleTypes } from '$library/index';
import { PATHS } from '$library/paths';
import { exposedByGroup } from '$library/safety';

/** Whether the maker alone says how a module of this role is worked on, on any vehicle that is described. */
const isLeftToMaker = (role: string): boolean =>
	[...vehicleTypes.values()].some((type) => makersAlone(type, role) !== null);

/** Driving is only on the base brakes, or not at all. */
const BASE_BRAKES: readonly string[] = ['base-brakes-only', 'do-not-drive'];

/** How one code stands in print-outs, on screens and on the line. */
function spellings(code: AnyCode): string[] {
	if (code.kind !== 'dtc') return [codeCalled(code)];
	const bare: AnyCode = { ...code, status: null };
	const bytes = formatBytes(code.code, code.failureType);
	const two = codeToNumber(code.code);
	return [
		formatSpelling(bare),
		bytes.replaceAll(' ', ''),
		bytes,
		`0x${hexByte(two >> 8)}${hexByte(two & 0xff)}`
	];
}

function statusBits(byte: number) {
	const status = decodeStatus(byte);
	return {
		byte: hexByte(byte),
		bits: STATUS_BITS.map((bit) => ({ words: STATUS_WORDS[bit], set: status[bit] }))
	};
}

export const load = async (event) => {
	const member = memberHere(event);
	const { params, url } = event;
	const plain = codeOfSlug(params.code);
	if (!plain)
		error(
			404,
			`“${params.code}” is no code: a code is written like C0045-13, SPN 789 FMI 5, lamp 3-4, or with an equals sign and the maker’s own.`
		);
	const wanted = /^[0-9A-Fa-f]{2}$/.exec(url.searchParams.get('status') ?? '')?.[0];
	const code = plain.kind === 'dtc' && wanted ? { ...plain, status: parseInt(wanted, 16) } : plain;

	const { codes, cases } = event.locals.services;
	const caseId = url.searchParams.get('case');
	const here = caseId && (await cases.find(caseId)) ? await loadCase(event.locals.services, caseId) : null;
	const maker = url.searchParams.get('maker') ?? (here ? await cases.makerOf(here.row.id) : null);
	const book = await codes.bookFor(numbersOf([code]));
	const number = code.kind === 'lamp' ? null : numberOf(code);
	const asked = { code: number ?? '', failureType: code.kind === 'dtc' ? code.failureType : null, maker };
	const { sources, disagreements } = codeSources(book, asked);
	const main = number ? titleSource(book, asked) : null;
	const cautions = await cautionsHere(event.locals.services, null);
	const group = main?.group ?? null;
	const judged = here?.view.entries
		.filter((e) => e.kind === 'source-judged' && e.payload.code === number)
		.at(-1);
	return {
		answer: answerCode(code, book, maker),
		decoded: decodeCode(code, params.code, book, maker),
		/** Other numbers that the parameter may have where the message sets its conversion bit. */
		olderNumbers: code.kind === 'j1939' && code.conversion === 1 ? olderNumbers(code.spn) : null,
		category: code.kind === 'dtc' && code.failureType ? failureCategory(code.failureType) : null,
		path: group && PATHS[group],
		cautions: group
			? cautions.words([
					...exposedByGroup(group),
					...(main?.sender && isLeftToMaker(main.sender) ? ['maker-only'] : []),
					...(main?.lamps.includes('restraint') ? ['restraint-near'] : []),
					...(BASE_BRAKES.includes(main?.driving ?? 'unaffected') ? ['base-brakes'] : [])
				])
			: '',
		lamps: main?.lamps ?? [],
		status: code.kind === 'dtc' && code.status !== null ? statusBits(code.status) : null,
		spellings: spellings(code),
		/** As it is noted on a case: with its status, its count, its conversion bit. */
		written: formatSpelling(code),
		slug: slugOf({ ...code, ...(code.kind === 'dtc' ? { status: null } : {}) }),
		number,
		sources,
		disagreements,
		maker,
		makers: shippedPacks.flatMap((pack) => (pack.maker ? [pack.maker] : [])),
		cases: number ? await cases.casesWith(number) : [],
		versions: number ? await codes.ownVersions(number) : [],
		mayEdit: number !== null && mayEditCodes(member),
		here: here && {
			id: here.row.id,
			number: here.row.number,
			canAdd: mayWrite(member) && !here.row.signed,
			judged: judged?.kind === 'source-judged' ? judged.payload : null
		},
		openCases:
			here || !mayWrite(member)
				? []
				: (await cases.page(false, 1)).rows.map(({ id, number: n, vehicle }) => ({
						id,
						text: `${n} ${vehicle.nickname}`
					}))
	};
};
