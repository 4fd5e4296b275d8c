import { codeKey } from '$lib/core/codes/codeKey';
import { comesOf } from '$lib/case/proof/comesAndGoes';
import { undisturbed } from '$lib/case/thread/inTheWay';
import { makerOf } from '$lib/case/thread/vehicleOf';
import { describeEntry } from '$lib/case/thread/describe';
import { networkFindings } from '$lib/case/codes/networkFindings';
import type { CaseView } from '$lib/case/progress/project';
import { oursWords, reportedCodes } from '$lib/case/codes/reported';
import { ofKind } from '$lib/case/thread/thread';
import { viewScan } from '$lib/case/codes/scanView';
import { fail } from '@sveltejs/kit';
import { modulesToAsk } from '$library/vehicle/linkRoutes';
import { message, setError, superValidate } from 'sveltekit-superforms';
import { zod4 } from 'sveltekit-superforms/adapters';
import { z } from 'zod';
import { caseRowHere, caseHere } from '$lib/server/cases/access';
import { LinkAddress } from '$lib/server/cases/linkAddress';
import { refusedLink } from '$lib/server/cases/linkRules';
import { overOf } from '$lib/server/jobs/vehicleJobs';
import { clock } from '$lib/server/cases/clock';

const AddressForm = z.object({ address: LinkAddress });

/** What was told to us, a group for each entry it came in. */
function reportedGroups({ entries, book }: CaseView) {
	const codes = reportedCodes(entries, book);
	return entries
		.filter((entry) => entry.kind === 'codes-reported' || entry.kind === 'frame-log')
		.reverse()
		.map((entry) => ({
			entryId: entry.id,
			title: describeEntry(entry).title,
			time: clock(entry.observedAt),
			by: entry.authorName,
			isLog: entry.kind === 'frame-log',
			rows: codes
				.filter((code) => code.entryId === entry.id)
				.map(({ answer, module, state, values, ours }, i) => ({
					key: String(i),
					text: answer.text,
					slug: answer.slug,
					title: answer.title,
					failureType: answer.failureType,
					module,
					state,
					values,
					ours: oursWords(ours)
				}))
		}));
}

export const load = async ({ params, depends, url, locals }) => {
	depends('jaldi:case');
	const { row, view, type } = await caseHere({ params, locals });
	const madeByUs = new Set(
		view.codes.flatMap(({ madeByUs, address, dtc }) => (madeByUs ? [codeKey({ address, dtc })] : []))
	);
	const following = new Set(view.codes.flatMap((code) => (code.followsFrom === null ? [] : [codeKey(code)])));
	const scans = ofKind(view.entries, 'network-scan');
	const chosen = scans.find((scan) => scan.id === url.searchParams.get('scan')) ?? scans.at(-1) ?? null;
	const recorded = ofKind(view.entries, 'vehicle-checked').at(-1)?.payload.vin ?? null;
	const vin = chosen?.payload.vin ?? null;
	const counting = undisturbed(view.entries);
	const comes = view.codes.flatMap((code) =>
		code.corner && code.madeByUs === null && comesOf(counting, code, view.codes)
			? [[codeKey(code), code.corner] as const]
			: []
	);
	return {
		/** Wheel of each code that comes and goes, by its key. */
		comes: Object.fromEntries(comes),
		linkAddress: row.vehicle.linkAddress,
		described: type !== null,
		/** Whether anybody knows where its modules answer. */
		whereKnown: type !== null && modulesToAsk(type, overOf(row)).length > 0,
		addressForm: await superValidate({ address: row.vehicle.linkAddress ?? '' }, zod4(AddressForm), {
			errors: false
		}),
		scans: scans
			.map((scan) => ({
				id: scan.id,
				time: clock(scan.observedAt),
				by: scan.authorName,
				outcome: scan.payload.outcome,
				codes: scan.payload.modules.reduce((sum, m) => sum + m.codes.length, 0)
			}))
			.reverse(),
		shown: chosen && {
			id: chosen.id,
			time: clock(chosen.observedAt),
			by: chosen.authorName,
			tool: chosen.payload.otherTool?.tool ?? null,
			printOut: chosen.payload.otherTool?.text ?? '',
			photos: chosen.payload.otherTool?.photos ?? [],
			outcome: chosen.payload.outcome,
			stoppedBecause: chosen.payload.stoppedBecause,
			expected: chosen.payload.modulesExpected,
			/** How many of its codes only follow from another. */
			following: chosen.payload.modules
				.flatMap(({ address, codes }) => codes.map(({ dtc }) => codeKey({ address, dtc })))
				.filter((key) => following.has(key)).length,
			vin,
			vinDiffers: vin !== null && recorded !== null && vin !== recorded,
			modules: viewScan(chosen, view.book, makerOf(view.entries), madeByUs),
			findings: networkFindings(chosen.payload, type, view.book)
		},
		lampCodes: ofKind(view.entries, 'lamp-read')
			.map(({ id, payload: { groups, meaning, lamp, repeats }, observedAt, authorName }) => ({
				id,
				groups,
				meaning,
				lamp,
				repeats,
				time: clock(observedAt),
				by: authorName
			}))
			.reverse(),
		reported: reportedGroups(view),
		byLamp: type?.tells === 'lamp'
	};
};

export const actions = {
	address: async (event) => {
		const form = await superValidate(event.request, zod4(AddressForm));
		if (!form.valid) return fail(400, { form });
		const { services } = event.locals;
		const refused =
			form.data.address && refusedLink(form.data.address, await services.settings.read('linkRules'));
		if (refused) return setError(form, 'address', refused);
		const { vehicle } = await caseRowHere(services, event.params.id);
		await services.vehicles.setLinkAddress(vehicle.id, form.data.address || null);
		return message(form, 'Address saved.');
	}
};
